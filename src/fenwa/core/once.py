"""What is worked out when it is first asked for and kept with its object."""

from __future__ import annotations

from collections.abc import Callable
from functools import update_wrapper
from typing import TYPE_CHECKING, Any, Concatenate, ParamSpec, TypeVar

if TYPE_CHECKING:
    from functools import cached_property as once
else:

    class once:  # noqa: N801 - used like the decorator it stands for
        """As ``functools.cached_property`` without its lock, which up to Python 3.11 takes longer than most of what is
        kept here. Two threads that meet work out the same value twice.
        """

        def __init__(self, make: Callable[[Any], Any]) -> None:
            self._make, self.__doc__ = make, make.__doc__

        def __set_name__(self, owner: type, name: str) -> None:
            """Keep the name it is kept by."""
            self._name = name

        def __get__(self, instance: Any, owner: type | None = None) -> Any:
            """Work it out; the next one who asks finds it in the object itself."""
            if instance is None:
                return self
            value = instance.__dict__[self._name] = self._make(instance)
            return value


X = TypeVar("X")
P = ParamSpec("P")
R = TypeVar("R")


def once_for(make: Callable[Concatenate[X, P], R]) -> Callable[Concatenate[X, P], R]:
    """A pure function of an object that never changes, and of a little more: kept with the object for what was asked
    last. A pot is asked about on every page of a day.
    """
    name = f"_once_{make.__module__}_{make.__qualname__}"

    def kept(of: X, /, *args: P.args, **kwargs: P.kwargs) -> R:
        known: tuple[object, object, R] | None = of.__dict__.get(name)
        if known is None or known[0] != args or known[1] != kwargs:
            known = of.__dict__[name] = (args, kwargs, make(of, *args, **kwargs))
        return known[2]

    update_wrapper(kept, make)
    return kept


def changed(of: X, **fields: Any) -> X:
    """As ``dataclasses.replace`` of a plain record, in two fifths of its time: for thousands that differ in a field."""
    made: X = object.__new__(type(of))
    was = of.__dict__
    made.__dict__.update({name: was[name] for name in type(of).__dataclass_fields__}, **fields)  # type: ignore[attr-defined]
    return made


__all__ = ["changed", "once", "once_for"]
