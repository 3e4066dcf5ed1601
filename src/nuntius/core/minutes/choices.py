"""How minutes are wanted: how long, which chapters in more detail, whether in finer chapters."""

from collections.abc import Mapping
from dataclasses import dataclass, fields
from typing import Any, Self

from nuntius.core.minutes.line import Length


@dataclass(frozen=True, slots=True)
class MinutesChoices:
    """None leaves a choice as it was; `detailed` are numbers of chapters."""

    length: Length | None = None
    detailed: frozenset[int] | None = None
    fine: bool | None = None

    def then(self, later: "MinutesChoices") -> "MinutesChoices":
        """These, with what was chosen later in their place."""
        names = [field.name for field in fields(self)]
        chosen = {name: getattr(later, name) for name in names if getattr(later, name) is not None}
        return MinutesChoices(**{name: chosen.get(name, getattr(self, name)) for name in names})

    def packed(self) -> dict[str, Any]:
        """As JSON."""
        detailed = None if self.detailed is None else sorted(self.detailed)
        return {"length": self.length, "detailed": detailed, "fine": self.fine}

    @classmethod
    def read(cls, packed: Mapping[str, Any] | None) -> Self:
        """Back from JSON; None is no choice at all."""
        if not packed:
            return cls()
        detailed = packed["detailed"]
        return cls(packed["length"], None if detailed is None else frozenset(detailed), packed["fine"])


UNCHANGED = MinutesChoices()
