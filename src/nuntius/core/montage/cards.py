"""Still pictures for passages without one: the section, the passage, who speaks and where it is from."""

import textwrap

import numpy as np
from numpy.typing import NDArray
from PIL import Image, ImageDraw, ImageFont

WIDTH, HEIGHT = 960, 540  # pixels
INK, PAPER, ACCENT, SOFT = "#1E2A2F", "#FBFAF6", "#1F7A6C", "#5A666B"  # the theme's light colours
LEFT = 72  # pixels


def card(section: str, title: str, source: str) -> NDArray[np.uint8]:
    """A card, shape (HEIGHT, WIDTH, 3)."""
    image = Image.new("RGB", (WIDTH, HEIGHT), PAPER)
    draw = ImageDraw.Draw(image)
    draw.line([(LEFT - 28, 90), (LEFT - 28, HEIGHT - 90)], fill=ACCENT, width=6)
    y = 96
    for text, size, colour, width, most in (
        (section, 24, SOFT, 60, 2),
        (title, 42, INK, 36, 4),
        (source, 24, SOFT, 60, 3),
    ):
        for line in textwrap.wrap(text, width)[:most]:
            draw.text((LEFT, y), line, colour, ImageFont.load_default(size))
            y += round(size * 1.35)
        y += 18 if text else 0
    return np.asarray(image)
