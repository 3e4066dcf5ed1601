"""Pages as PDF/UA (ISO 14289-1): real text, tagged headings, page numbers, times as links."""

from nuntius.core.errors import PrintingMissing


def write_pdf(page: str) -> bytes:
    """A page of our own as PDF. Nothing is fetched: the page brings all it needs. Raises PrintingMissing."""
    try:  # here and not above: it loads Debian's text layout, without which everything else still works
        from weasyprint import HTML
        from weasyprint.urls import URLFetcher
    except OSError as cause:
        raise PrintingMissing() from cause
    return bytes(HTML(string=page, url_fetcher=URLFetcher(allowed_protocols=())).write_pdf(pdf_variant="pdf/ua-1"))
