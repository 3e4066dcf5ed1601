"""Word-processor documents (Office Open XML): minutes and transcripts written, transcripts read."""

from io import BytesIO
from zipfile import BadZipFile, ZipFile

from docx import Document
from docx.document import Document as Doc
from docx.opc.exceptions import PackageNotFoundError
from docx.oxml.ns import qn
from docx.shared import Pt, RGBColor

from nuntius.core.errors import TranscriptUnreadable
from nuntius.core.formats.markdown import WrittenLine, WrittenMinutes, laid_out
from nuntius.core.formats.safe import plain
from nuntius.core.minutes.line import LineKind
from nuntius.core.times import short_clock
from nuntius.core.transcript.transcript import Transcript

FADED = RGBColor(0x56, 0x64, 0x6A)
LARGEST_UNPACKED = 64 * 1024 * 1024  # bytes of a document's text; more is no transcript


def write_minutes_docx(minutes: WrittenMinutes) -> bytes:
    """Minutes with real headings and lists; actions as a table of who, what and by when."""
    document = _document(minutes.title, minutes.facts)
    for title, parts in laid_out(minutes):
        document.add_heading(plain(title), 1)
        for part, inside in parts:
            if part:
                document.add_heading(plain(part), 2)
            _table(document, [line for line in inside if line.kind == LineKind.ACTION])
            for line in inside:
                if line.kind != LineKind.ACTION:
                    _item(document, line)
    foot = f"These minutes draw on {minutes.coverage:.0%} of the talk. Times are from the start of the recording."
    _small(document.add_paragraph(), foot)
    return _bytes(document)


def write_transcript_docx(title: str, facts: tuple[str, ...], transcript: Transcript) -> bytes:
    """A transcript as paragraphs `[m:ss] Name: words`, which `read_docx_text` reads back."""
    document = _document(title, facts)
    for turn in transcript.turns:
        paragraph = document.add_paragraph()
        _small(paragraph, f"[{short_clock(turn.start)}] ")
        paragraph.add_run(f"{plain(turn.speaker)}: ").bold = True
        paragraph.add_run(plain(turn.text))
    return _bytes(document)


def read_docx_text(data: bytes) -> str:
    """The paragraphs of a document, a line each. Raises TranscriptUnreadable when it is none."""
    try:
        with ZipFile(BytesIO(data)) as packed:
            if sum(part.file_size for part in packed.infolist()) > LARGEST_UNPACKED:
                raise TranscriptUnreadable("it unpacks to more than 64 MB")
        document = Document(BytesIO(data))
    except (BadZipFile, PackageNotFoundError, KeyError, ValueError, OSError) as cause:
        raise TranscriptUnreadable("it is no word-processor document") from cause
    return "\n".join(paragraph.text for paragraph in document.paragraphs)


def _document(title: str, facts: tuple[str, ...]) -> Doc:
    document = Document()
    style = document.styles["Normal"]
    style.font.name, style.font.size = "Georgia", Pt(11)
    style.element.rPr.rFonts.set(qn("w:eastAsia"), "Georgia")
    document.core_properties.title, document.core_properties.author = plain(title)[:255], "Nuntius"
    document.core_properties.language = "en-GB"
    document.add_heading(plain(title), 0)
    for fact in facts:
        document.add_paragraph(plain(fact)).paragraph_format.space_after = Pt(0)
    return document


def _item(document: Doc, line: WrittenLine) -> None:
    paragraph = document.add_paragraph(style="List Bullet")
    paragraph.add_run(plain(line.text)).font.strike = line.gone
    if line.remark:
        paragraph.add_run(f" — {plain(line.remark)}")
    _small(paragraph, f"  [{plain(line.stands)}]")


def _table(document: Doc, actions: list[WrittenLine]) -> None:
    if not actions:
        return
    table = document.add_table(rows=1, cols=3, style="Light Grid")
    for cell, head in zip(table.rows[0].cells, ("Who", "What", "By when"), strict=True):
        cell.text = head
    for line in actions:
        who, what, when = table.add_row().cells
        who.text = plain(line.who)
        what.text = ""
        what.paragraphs[0].add_run(plain(line.text)).font.strike = line.gone
        if line.remark:
            what.paragraphs[0].add_run(f" — {plain(line.remark)}")
        _small(what.paragraphs[0], f"  [{plain(line.stands)}]")
        when.text = line.when
    document.add_paragraph()


def _small(paragraph: object, text: str) -> None:
    run = paragraph.add_run(text)  # type: ignore[attr-defined]
    run.font.size, run.font.color.rgb = Pt(9), FADED


def _bytes(document: Doc) -> bytes:
    made = BytesIO()
    document.save(made)
    return made.getvalue()
