"""Minutes as a page to be printed or pasted into a letter: HTML of its own, without anything to fetch."""

from collections.abc import Iterator

from jinja2 import Environment

from nuntius.core.formats.markdown import WrittenMinutes, laid_out
from nuntius.core.times import short_clock
from nuntius.core.transcript.transcript import Transcript

_PAGE = """<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>{{ minutes.title }}</title>
<style>
  @page { size: A4; margin: 22mm 20mm 20mm 24mm; @bottom-right { content: counter(page) " / " counter(pages); font: 9pt Georgia, serif; } }
  body { font: 11pt/1.45 Literata, Georgia, serif; color: #1e2a2f; max-width: 46em; margin: 2em auto; padding: 0 1em; }
  h1 { font-size: 19pt; line-height: 1.2; margin: 0 0 .4em; }
  h2 { font-size: 13pt; margin: 1.6em 0 .4em; padding-bottom: .15em; border-bottom: .75pt solid #1e2a2f; break-after: avoid; }
  h3 { font-size: 11pt; margin: 1.1em 0 .3em; break-after: avoid; }
  .facts { margin: 0; padding: 0; list-style: none; color: #3f4d52; }
  ul.lines { margin: .3em 0; padding-left: 1.5em; }
  li { margin: .35em 0; break-inside: avoid; }
  .times { color: #56646a; font-size: 9pt; white-space: nowrap; font-variant-numeric: tabular-nums; }
  .topic { color: #56646a; font-size: 9pt; }
  .times a { color: inherit; }
  .gone { text-decoration: line-through; }
  table { border-collapse: collapse; width: 100%; margin-top: .4em; }
  th, td { text-align: left; vertical-align: top; padding: .35em .6em .35em 0; border-bottom: .5pt solid #b9b6ab; }
  tr { break-inside: avoid; }
  .foot { margin-top: 2.2em; color: #56646a; font-size: 9pt; }
  @media print { body { margin: 0; padding: 0; max-width: none; } }
</style>
</head>
<body>
{% macro times(line) %}<span class="times">
{%- for clock in line.passages -%}
{%- if not loop.first %}, {% endif -%}
{%- if minutes.link and line.seconds %}<a href="{{ minutes.link }}#t={{ "%.1f" | format(line.seconds[loop.index0]) }}">{{ clock }}</a>{% else %}{{ clock }}{% endif -%}
{%- else -%}
added by hand
{%- endfor -%}
</span>{% if line.topic %} <span class="topic">· {{ line.topic }}</span>{% endif %}{% endmacro %}
{% macro remark(line) %}{% if line.remark %}<br>{{ line.remark[0] | upper }}{{ line.remark[1:] }}{% endif %}{% endmacro %}
<h1>{{ minutes.title }}</h1>
<ul class="facts">{% for fact in minutes.facts %}<li>{{ fact }}</li>{% endfor %}</ul>
{% for title, parts in sections %}
<h2>{{ title }}</h2>
{% for part, lines in parts %}
{% if part %}<h3>{{ part }}</h3>{% endif %}
{% set actions = lines | selectattr("kind", "equalto", "action") | list %}
{% set others = lines | rejectattr("kind", "equalto", "action") | list %}
{% if actions %}
<table>
<thead><tr><th scope="col">Who</th><th scope="col">What</th><th scope="col">By when</th></tr></thead>
<tbody>
{% for line in actions %}
<tr><td>{{ line.who }}</td>
<td><span{% if line.gone %} class="gone"{% endif %}>{{ line.text }}</span>{{ remark(line) }} {{ times(line) }}</td>
<td>{{ line.when }}</td></tr>
{% endfor %}
</tbody>
</table>
{% endif %}
{% if others %}
<ul class="lines">
{% for line in others %}
<li><span{% if line.gone %} class="gone"{% endif %}>{{ line.text }}</span>{{ remark(line) }}
&#32;{{ times(line) }}</li>
{% endfor %}
</ul>
{% endif %}
{% endfor %}
{% endfor %}
<p class="foot">These minutes draw on {{ "%d" | format(minutes.coverage * 100) }} % of the talk. Times are from the start of the recording.</p>
</body>
</html>
"""
_template = Environment(autoescape=True, trim_blocks=True, lstrip_blocks=True).from_string(_PAGE)


_TRANSCRIPT = """{% for turn in turns %}
<p><b>{{ turn.speaker }}</b> <span class="times">
{%- if link %}<a href="{{ link }}#t={{ "%.1f" | format(turn.start) }}">{{ clock(turn.start) }}</a>{% else %}{{ clock(turn.start) }}{% endif -%}
</span><br>{{ turn.text }}</p>
{% endfor %}
"""
_HEAD = _PAGE.partition("{% macro")[0]
_talk = Environment(autoescape=True, trim_blocks=True, lstrip_blocks=True).from_string(
    _HEAD
    + '<h1>{{ minutes.title }}</h1>\n<ul class="facts">{% for fact in minutes.facts %}<li>{{ fact }}</li>{% endfor %}</ul>\n'
    + _TRANSCRIPT
    + "</body>\n</html>\n"
)


def write_transcript_html(minutes: WrittenMinutes, transcript: Transcript) -> str:
    """A transcript as a page: who, when, words; `minutes` gives title, facts and link."""
    return _talk.render(minutes=minutes, turns=transcript.turns, link=minutes.link, clock=short_clock)


def write_html(minutes: WrittenMinutes) -> Iterator[str]:
    """A page with the template's sections; actions as a table of who, what and by when."""
    yield _template.render(minutes=minutes, sections=list(laid_out(minutes)))
