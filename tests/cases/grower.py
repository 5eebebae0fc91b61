"""A grower with a clock: every act goes through the API on its own day, every answer is read from it."""

from __future__ import annotations

from datetime import date, timedelta
from typing import Any

from tests.conftest import Client, buy


def d(text: str) -> date:
    """``05-11`` of 2027, or a full day."""
    return date.fromisoformat(text if len(text) == 10 else f"2027-{text}")


class Grower:
    """A home with its waters, feeds and pots, named as the grower names them."""

    def __init__(self, client: Client) -> None:
        self.store = client.store
        self.waters: dict[str, int] = {}
        self.pots: dict[str, int] = {}
        self.feeds: dict[str, int] = {}

    def on(self, day: str) -> Client:
        """The home on a day."""
        return Client(self.store, d(day))

    def water(self, day: str, name: str, kind: str, **more: Any) -> int:
        body = {"name": name, "kind": kind, **more}
        self.waters[name] = self.on(day).made("/api/waters", body)["id"]
        return self.waters[name]

    def feed(self, day: str, name: str, **label: Any) -> int:
        """A feed by its label, as the grower types it."""
        body = {"name": name, "pk_as": "oxide", "basis": "w/w", **label}
        self.feeds[name] = self.on(day).made("/api/products", body)["id"]
        return self.feeds[name]

    def shipped(self, day: str, name: str) -> int:
        self.feeds[name] = buy(self.on(day), name)
        return self.feeds[name]

    def pot(self, day: str, code: str, kind: str = "unknown", **more: Any) -> int:
        body = {
            "code": code,
            "profile_id": kind,
            "medium_id": "peat_perlite",
            "volume": 1,
            "interval_days": 7,
            "medium_charged": False,
            **more,
        }
        if "water" in body:
            body["water_id"] = self.waters[str(body.pop("water"))]
        self.pots[code] = self.on(day).made("/api/pots", body)["id"]
        return self.pots[code]

    def change(self, day: str, code: str, **more: Any) -> None:
        self.on(day).made("/api/pots/change", {"pot_ids": [self.pots[code]], **more})

    def plan(self, day: str, scope: str = "all", key: str = "", **more: Any) -> int:
        key = str(self.pots[key]) if scope == "plant" else key
        feed = more.pop("feed", None)
        if feed is not None:
            more["products"] = [{"product_id": self.feeds[feed]}]
        return int(self.on(day).made("/api/plans", {"scope": scope, "key": key, **more})["id"])

    def pour(self, day: str, code: str, water: str | None = None, **more: Any) -> dict[str, Any]:
        body = {"pot_ids": [self.pots[code]], "on": str(d(day)), "volume": 100, **more}
        if water is not None:
            body["water_id"] = self.waters[water]
        return dict(self.on(day).made("/api/pours", body))

    def can(self, day: str, feed: str, water: str, litres: float = 1.0, **more: Any) -> int:
        body = {
            "product_id": self.feeds[feed],
            "water_id": self.waters[water],
            "volume": litres,
            "made_on": str(d(day)),
        }
        return int(self.on(day).made("/api/batches", {**body, "strength": "fraction", "value": 0.5, **more})["id"])

    def give_feed(self, day: str, code: str, feed: str, water: str, **more: Any) -> None:
        self.pour(day, code, batch_id=self.can(day, feed, water), note="as planned", **more)

    def look(self, day: str, code: str, **more: Any) -> None:
        self.on(day).made(f"/api/pots/{self.pots[code]}/looks", {"on": str(d(day)), **more})

    def felt(self, day: str, code: str, **more: Any) -> None:
        self.on(day).made(f"/api/pots/{self.pots[code]}/felt", {"on": str(d(day)), **more})

    def climate(self, day: str, **more: Any) -> None:
        self.on(day).made("/api/places/1/climate", {"on": str(d(day)), **more})

    # what the day says

    def plan_of(self, day: str) -> dict[str, Any]:
        return dict(self.on(day).get("/api/round")["plan"])

    def cans(self, day: str) -> list[dict[str, Any]]:
        return list(self.plan_of(day)["cans"])

    def jobs(self, day: str) -> dict[str, str]:
        """What each pot of the round gets."""
        return {p["code"]: c["job"] for c in self.cans(day) for p in c["pots"]}

    def given(self, day: str) -> dict[str, str]:
        """The water each pot of the round gets."""
        return {p["code"]: c["water_name"] for c in self.cans(day) for p in c["pots"]}

    def fed_with(self, day: str) -> dict[str, str]:
        return {p["code"]: c["product"] for c in self.cans(day) for p in c["pots"] if c["job"] == "feed"}

    def why(self, day: str, code: str) -> str:
        return " ".join(p["why"] for c in self.cans(day) for p in c["pots"] if p["code"] == code)

    def then(self, day: str, code: str) -> str:
        return " ".join(p["then"] for c in self.cans(day) for p in c["pots"] if p["code"] == code)

    def looks(self, day: str, code: str) -> str:
        """What the round asks to look at, with what ends it."""
        return " ".join(f"{x['reason']} {x['release']}" for x in self.plan_of(day)["looks"] if x["code"] == code)

    def holds(self, day: str, code: str) -> dict[str, str]:
        page = self.on(day).get(f"/api/pots/{self.pots[code]}/care")
        return {h["id"]: f"{h['reason']} {h['release']}" for h in page["holds"] if not h["word"]}

    def care(self, day: str, code: str) -> dict[str, Any]:
        return dict(self.on(day).get(f"/api/pots/{self.pots[code]}/care"))

    def errands(self, day: str) -> list[str]:
        return [j["title"] for j in self.on(day).get("/api/round")["jobs"]]

    def helper(self, leaving: str, back: str, on: str | None = None) -> dict[str, dict[str, Any]]:
        page = self.on(on or leaving).get(f"/api/away?leaving={d(leaving)}&back={d(back)}")
        return {r["code"]: r for r in page["plan"]["result"]["rows"]}

    def days_with(self, first: str, last: str, code: str, job: str) -> list[str]:
        """Days on which the round gives a pot a job, nobody pouring."""
        found, day = [], d(first)
        while day <= d(last):
            if self.jobs(str(day)).get(code) == job:
                found.append(str(day))
            day += timedelta(days=1)
        return found
