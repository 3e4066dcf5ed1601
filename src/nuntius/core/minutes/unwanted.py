"""What was thrown out of earlier meetings of a series, and is not offered again."""

from nuntius.core.language.vectors import vectors
from nuntius.core.minutes.line import Line, LineKind

SAME = 0.85  # cosine above which a line says the same as one that was thrown out


def without_unwanted(lines: list[Line], unwanted: tuple[tuple[str, str], ...]) -> list[Line]:
    """The lines without those that say the same as a line of their kind that was thrown out; notes always stay."""
    if not unwanted or not lines:
        return lines
    alike = vectors([line.text for line in lines]) @ vectors([text for _, text in unwanted]).T
    return [
        line
        for line, row in zip(lines, alike, strict=True)
        if line.kind == LineKind.NOTE
        or not any(kind == line.kind and score >= SAME for (kind, _), score in zip(unwanted, row, strict=True))
    ]
