"""Logs: one JSON object a line, with identifiers and measures and never a spoken word."""

import json
import logging
import sys
from datetime import UTC, datetime

_OWN = frozenset(vars(logging.makeLogRecord({})) | {"message": None, "asctime": None})


class JsonLines(logging.Formatter):
    """Time, level, logger, message and the extra fields of a record."""

    def format(self, record: logging.LogRecord) -> str:
        fields = {
            "time": datetime.fromtimestamp(record.created, UTC).isoformat(timespec="milliseconds"),
            "level": record.levelname.lower(),
            "from": record.name,
            "what": record.getMessage(),
        }
        fields |= {key: value for key, value in vars(record).items() if key not in _OWN}
        if record.exc_info:
            fields["trace"] = self.formatException(record.exc_info)
        return json.dumps(fields, default=str)


def to_lines() -> None:
    """Sends all logs to standard error as JSON lines."""
    handler = logging.StreamHandler(sys.stderr)
    handler.setFormatter(JsonLines())
    root = logging.getLogger()
    root.handlers[:] = [handler]
    root.setLevel(logging.INFO)
    for noisy in ("huey", "faster_whisper", "alembic", "libav", "weasyprint", "fontTools"):
        logging.getLogger(noisy).setLevel(logging.WARNING)
