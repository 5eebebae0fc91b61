"""Photos through the API, drawn here: what is taken, refused, left out of them and read in them."""

from __future__ import annotations

import io
import zipfile
import zlib
from collections.abc import Callable
from datetime import timedelta
from typing import Any
from uuid import uuid4

import numpy as np
import pytest
from PIL import Image, ImageDraw

from fenwa.api.transactions import now
from fenwa.formats.photo import MOST_BYTES, read_photo
from fenwa.store.models import Pot
from fenwa.store.photo_files import PhotoFolder
from fenwa.store.photo_rows import sweep
from tests.conftest import Client

RIM = {"first": {"x": 100, "y": 500}, "second": {"x": 700, "y": 500}, "known_mm": 120}


def drawn(size: tuple[int, int] = (800, 600), brown: float = 0.25) -> Image.Image:
    """A blade of 400 x 100 px above a rim of 600 px, its right end brown."""
    picture = Image.new("RGB", size, (236, 232, 224))
    draw = ImageDraw.Draw(picture)
    draw.rectangle((100, 500, 700, 590), fill=(172, 98, 70))
    draw.rectangle((200, 200, 599, 299), fill=(74, 128, 62))
    draw.rectangle((200 + int(400 * (1 - brown)), 200, 599, 299), fill=(118, 78, 44))
    return picture


def file(picture: Image.Image, kind: str, **how: Any) -> bytes:
    from pillow_heif import register_heif_opener

    register_heif_opener()
    out = io.BytesIO()
    picture.save(out, kind, **how)
    return out.getvalue()


def sent(c: Client, data: bytes, *, key: str | None = None, on: str = "2026-11-20") -> Any:
    headers = {"Idempotency-Key": key or uuid4().hex, "Content-Type": "application/octet-stream"}
    return c.http.post(f"/api/pots/1/photos?on={on}", content=data, headers=headers)


def kept_photo(c: Client, on: str = "2026-11-20", brown: float = 0.25) -> dict[str, Any]:
    answer = sent(c, file(drawn(brown=brown), "PNG"), on=on)
    assert answer.status_code == 201, answer.text
    return dict(answer.json())


@pytest.mark.parametrize("kind", ["JPEG", "PNG", "WEBP", "HEIF"])
def test_every_usual_kind_is_taken_whatever_its_name(kept: Client, kind: str) -> None:
    made = sent(kept, file(drawn(), kind)).json()
    assert (made["width_px"], made["height_px"]) == (800, 600)
    for size, longest in (("list", 320), ("screen", 800), ("whole", 800)):
        answer = kept.http.get(f"/api/photos/{made['id']}/{size}")
        assert answer.headers["content-type"].startswith("image/")
        assert max(Image.open(io.BytesIO(answer.content)).size) == longest


def test_a_photo_is_turned_upright_and_tells_neither_place_nor_device(kept: Client) -> None:
    exif = Image.Exif()
    exif[0x0112] = 6  # taken with the phone on its side
    exif[0x010F] = "A maker of phones"
    exif.get_ifd(0x8825)[2] = (52.0, 30.0, 0.0)
    made = sent(kept, file(drawn(), "JPEG", exif=exif, comment=b"garden gate")).json()
    assert (made["width_px"], made["height_px"]) == (600, 800)
    whole = kept.http.get(f"/api/photos/{made['id']}/whole").content
    assert b"maker" not in whole
    assert b"gate" not in whole
    assert dict(Image.open(io.BytesIO(whole)).getexif()) == {}
    stored = b"".join(f.read_bytes() for f in PhotoFolder(kept.store.path).path.rglob("*") if f.is_file())
    assert b"maker" not in stored


def test_one_photo_sent_twice_is_one_file_and_one_key_is_one_row(kept: Client) -> None:
    data, key = file(drawn(), "JPEG"), uuid4().hex
    first, again = sent(kept, data, key=key).json(), sent(kept, data, key=key).json()
    assert first == again
    other = sent(kept, data).json()
    assert other["id"] != first["id"]
    files = [f for f in PhotoFolder(kept.store.path).path.rglob("*") if f.is_file()]
    assert len(files) == 3
    assert all(f.stat().st_mode & 0o077 == 0 for f in files), "only the owner reads them"
    used = kept.get("/api/photos")
    assert (used["photos"], used["bytes"]) == (2, sum(f.stat().st_size for f in files))
    assert sent(kept, file(drawn(brown=0.5), "JPEG"), key=key).status_code == 409


def bomb() -> bytes:
    """A PNG of a few kilobytes that says it is 30 000 pixels a side."""

    def chunk(name: bytes, data: bytes) -> bytes:
        return len(data).to_bytes(4, "big") + name + data + zlib.crc32(name + data).to_bytes(4, "big")

    side = (30_000).to_bytes(4, "big")
    head = chunk(b"IHDR", side + side + bytes([8, 2, 0, 0, 0]))
    return b"\x89PNG\r\n\x1a\n" + head + chunk(b"IDAT", zlib.compress(bytes(90_001))) + chunk(b"IEND", b"")


@pytest.mark.parametrize(
    ("data", "words"),
    [
        (lambda: b"", "is empty"),
        (lambda: b"Leaf 7, brown tip\n" * 40, "not a picture"),
        (lambda: b"\xff\xd8\xff\xe0" + b"rest of nothing", "picture"),
        (lambda: file(drawn(), "JPEG")[:3000], "broken"),
        (lambda: file(drawn(), "GIF"), "GIF file"),
        (bomb, "pixels"),
        (lambda: b"\xff" * (MOST_BYTES + 1), "larger than 25 MB"),
    ],
    ids=["empty", "a renamed text file", "only its first bytes", "cut off", "another kind", "a bomb", "too large"],
)
def test_what_is_no_photo_is_refused_in_a_sentence_and_leaves_nothing(
    kept: Client, data: Callable[[], bytes], words: str
) -> None:
    answer = sent(kept, data())
    assert answer.status_code == 422, answer.text
    assert words in answer.json()["detail"]
    assert kept.get("/api/photos") == {"photos": 0, "bytes": 0, "folder": "fenwa.photos"}


def test_wide_colours_come_out_as_the_screen_shows_them() -> None:
    """A grey picture with a profile of its own stays grey; shares of colours rest on that."""
    from PIL import ImageCms

    profile = ImageCms.ImageCmsProfile(ImageCms.createProfile("sRGB")).tobytes()
    clean = read_photo(file(Image.new("RGB", (40, 40), (120, 120, 120)), "PNG", icc_profile=profile))
    pixel = np.asarray(Image.open(io.BytesIO(clean.data)))[0, 0]
    assert abs(pixel.astype(int) - 120).max() <= 1
    see_through = Image.new("RGBA", (40, 40), (0, 0, 0, 0))
    assert np.asarray(Image.open(io.BytesIO(read_photo(file(see_through, "PNG")).data)))[0, 0].tolist() == [255] * 3


def test_a_length_is_read_in_a_photo_and_stands_with_its_leaf(kept: Client) -> None:
    """600 px of rim are 120 mm: a blade of 400 px is 80 mm."""
    kept.made("/api/pots/1/looks", {"on": "2026-11-01", "new_leaf": True})
    leaf = kept.get("/api/pots/1/look-asked")["leaves"][0]
    photo = kept_photo(kept)
    body = {"taps": RIM, "points": [{"x": 200, "y": 250}, {"x": 400, "y": 250}, {"x": 600, "y": 250}]}
    preview = kept.made(f"/api/photos/{photo['id']}/measured/preview", body)
    assert preview["length"]["result"]["mm"] == pytest.approx(80)
    assert kept.get("/api/pots/1/leaves")["leaves"][0]["lengths"] == [], "a preview stores nothing"
    made = kept.made(f"/api/photos/{photo['id']}/lengths", {**body, "leaf_id": leaf["id"], "growing": False})
    record = kept.get("/api/pots/1/leaves")["leaves"][0]
    assert record["finished_mm"] == pytest.approx(80)
    assert (record["lengths"][0]["origin"], record["lengths"][0]["low_mm"] < 80) == ("photo", True)
    assert kept.get("/api/pots/1/photos")["photos"][0]["scale"]["mm_per_px"] == pytest.approx(0.2)
    assert kept.get("/api/leaves")["groups"][0]["plants"][0]["line"]["usual_mm"] == pytest.approx(80)
    kept.made(f"/api/log/leaf length/{made['id']}/archive")
    assert kept.get("/api/pots/1/leaves")["leaves"][0]["finished_mm"] is None


def test_the_rim_of_the_pot_gives_the_scale_where_it_is_known(kept: Client) -> None:
    photo = kept_photo(kept)
    rim = {k: v for k, v in RIM.items() if k != "known_mm"}
    refused = kept.refused(f"/api/photos/{photo['id']}/measured/preview", {"taps": rim})
    assert refused["errors"][0]["pointer"] == "/taps/known_mm"
    with kept.store.writing() as session:
        session.get_one(Pot, 1).top_cm = 12
    found = kept.made(f"/api/photos/{photo['id']}/measured/preview", {"taps": rim})
    assert found["scale"]["result"]["mm_per_px"] == pytest.approx(0.2)
    assert found["length"] is None


def test_brown_is_read_accepted_or_corrected_and_becomes_a_mark(kept: Client) -> None:
    kept.made("/api/pots/1/looks", {"on": "2026-11-01", "new_leaf": True})
    leaf = kept.get("/api/pots/1/look-asked")["leaves"][0]
    photo = kept_photo(kept, brown=0.25)
    outline = [{"x": 200, "y": 200}, {"x": 600, "y": 200}, {"x": 600, "y": 300}, {"x": 200, "y": 300}]
    found = kept.made(f"/api/photos/{photo['id']}/marks/preview", {"outline": outline})["result"]
    assert found["brown"] == pytest.approx(25, abs=3)
    kept.made(f"/api/photos/{photo['id']}/marks", {"outline": outline, "leaf_id": leaf["id"], "brown_pct": 22})
    assert kept.get("/api/leaves")["groups"][0]["plants"][0]["marks"] == ["spot"]
    assert kept.get("/api/pots/1/leaves")["marks"]["result"]["counting"] == 1
    assert "3 to" in kept.refused(f"/api/photos/{photo['id']}/marks/preview", {"outline": outline[:2]})["detail"]


def test_two_photos_lie_on_one_ruler_with_what_changed_between(kept: Client) -> None:
    first, second = kept_photo(kept, "2026-10-01"), kept_photo(kept, "2026-11-20")
    way = f"/api/photos/{second['id']}/against/{first['id']}"
    refused = kept.http.get(way)
    assert refused.status_code == 422
    assert "no scale yet" in refused.json()["detail"]
    for photo in (first, second):
        kept.made(f"/api/photos/{photo['id']}/scale", RIM)
    kept.made("/api/pots/1/decisions", {"on": "2026-10-10", "what": "moved to the window"})
    found = kept.get(way)
    assert (found["before"]["on"], found["after"]["on"], found["pair"]["result"]["days"]) == (
        "2026-10-01",
        "2026-11-20",
        50,
    )
    assert [h["words"] for h in found["between"]["happened"]] == ["moved to the window"]
    assert found["pair"]["result"]["before"] == found["pair"]["result"]["after"]


def test_photos_leave_with_the_collection_and_come_back_with_undo(kept: Client) -> None:
    photo = kept_photo(kept)
    packed = zipfile.ZipFile(io.BytesIO(kept.http.get("/api/photos.zip").content))
    assert packed.namelist() == [f"P-01-2026-11-20-{photo['id']}.png", "photos.csv"]
    kept.made(f"/api/log/photo/{photo['id']}/archive")
    assert kept.get("/api/pots/1/photos")["photos"] == []
    assert kept.http.get(f"/api/photos/{photo['id']}/whole").status_code == 404
    kept.made(f"/api/log/photo/{photo['id']}/restore")
    assert kept.http.get(f"/api/photos/{photo['id']}/whole").status_code == 200


def test_a_folder_left_behind_is_said(kept: Client) -> None:
    photo = kept_photo(kept)
    for f in PhotoFolder(kept.store.path).path.rglob("*.png"):
        f.unlink()
    answer = kept.http.get(f"/api/photos/{photo['id']}/whole")
    assert answer.status_code == 404
    assert "beside the database" in answer.json()["detail"]


def test_a_second_looker_rates_by_number(kept: Client) -> None:
    ids = {kept_photo(kept, f"2026-11-1{i}")["id"] for i in range(4)}
    shown = kept.get("/api/photos-blind?seed=7")
    assert {x["photo_id"] for x in shown} == ids
    assert shown == kept.get("/api/photos-blind?seed=7"), "one seed, one order"
    assert [x["photo_id"] for x in shown] != [x["photo_id"] for x in kept.get("/api/photos-blind?seed=8")]
    assert set(shown[0]) == {"number", "photo_id", "rated"}, "neither plant nor day is told"
    kept.made(f"/api/photos/{shown[0]['photo_id']}/ratings", {"score": 7, "by": "second"})
    assert kept.get("/api/photos-blind?seed=7")[-1] == {**shown[0], "number": 4, "rated": 1}
    kept.refused(f"/api/photos/{shown[0]['photo_id']}/ratings", {"score": 11})
    kept.refused(f"/api/photos/{shown[0]['photo_id']}/ratings", {"score": 6.5})


def test_a_deleted_photos_file_goes_once_nobody_undoes_it(kept: Client) -> None:
    """After ninety days, and never while another row of the same content is kept."""
    first, second = kept_photo(kept, "2026-10-01"), kept_photo(kept, "2026-11-20")
    folder = PhotoFolder(kept.store.path)
    kept.made(f"/api/log/photo/{first['id']}/archive")
    later = now() + timedelta(days=100)
    with kept.store.writing() as session:
        assert sweep(session, folder, later) == 0, "the other row shows the same picture"
    kept.made(f"/api/log/photo/{second['id']}/archive")
    with kept.store.writing() as session:
        assert sweep(session, folder, now()) == 0, "it can be brought back"
        assert sweep(session, folder, later) == 1
    assert folder.bytes_used() == 0
