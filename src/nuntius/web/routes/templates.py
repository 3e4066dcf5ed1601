"""Templates of the workspace."""

from flask import Response
from flask_openapi3 import APIBlueprint, Tag
from sqlalchemy.orm import Session

from nuntius.core.minutes.line import LineKind
from nuntius.core.templates.template import TAKEN, template_json
from nuntius.store.rights import may_change_shared
from nuntius.store.templates import Choice, choices, remove_template, save_template
from nuntius.web import setup_schemas as s
from nuntius.web.answers import answer
from nuntius.web.security import installation, me

api = APIBlueprint("templates", __name__, url_prefix="/api/templates", abp_tags=[Tag(name="templates")])


def _all(db: Session) -> s.TemplatesOut:
    found = [_out(choice) for choice in choices(db, me().workspace_id)]
    kinds = [
        s.KindOut(kind=kind, description=description) for kind, description in TAKEN.items() if kind != LineKind.KEYWORD
    ]
    return s.TemplatesOut(templates=found, kinds=kinds)


def _out(choice: Choice) -> s.TemplateOut:
    may_change = choice.id is not None and may_change_shared(me(), choice.made_by)
    return s.TemplateOut(key=choice.key, id=choice.id, may_change=may_change, **template_json(choice.template))


@api.get("", operation_id="getTemplates", responses={200: s.TemplatesOut})
def get_templates() -> Response:
    """The shipped templates, then the workspace's own."""
    with installation().database.read() as db:
        return answer(_all(db))


@api.post("", operation_id="addTemplate", responses={200: s.TemplateOut})
def add_template(body: s.TemplateShape) -> Response:
    """Keeps a new template."""
    with installation().database.write() as db:
        return answer(_out(save_template(db, me(), None, body.model_dump())))


@api.put("/<int:template_id>", operation_id="changeTemplate", responses={200: s.TemplateOut})
def change_template(path: s.TemplatePath, body: s.TemplateShape) -> Response:
    """Changes one of the workspace's own; minutes made by it follow when they are written again."""
    with installation().database.write() as db:
        return answer(_out(save_template(db, me(), path.template_id, body.model_dump())))


@api.delete("/<int:template_id>", operation_id="removeTemplate", responses={200: s.TemplatesOut})
def delete_template(path: s.TemplatePath) -> Response:
    """Removes one of the workspace's own; meetings that had it go back to the one of their kind."""
    with installation().database.write() as db:
        remove_template(db, me(), path.template_id)
        return answer(_all(db))
