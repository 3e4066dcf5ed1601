"""Vocabulary, ready questions, and how far lines may be trusted: what a workspace has of its own."""

from flask import Response
from flask_openapi3 import APIBlueprint, Tag
from sqlalchemy.orm import Session

from nuntius.store.questions import keep_question, questions_of, remove_question
from nuntius.store.rights import may_change_shared
from nuntius.store.trust import trust_of
from nuntius.store.vocabulary import add_term, remove_term, terms_of
from nuntius.web import setup_schemas as s
from nuntius.web.answers import answer
from nuntius.web.security import installation, me

api = APIBlueprint("setup", __name__, url_prefix="/api/setup", abp_tags=[Tag(name="setup")])


def _terms(db: Session) -> s.TermsOut:
    rows = terms_of(db, me().workspace_id)
    return s.TermsOut(
        terms=[
            s.TermOut(
                id=r.id, text=r.text, heard=r.heard, refused=r.refused, may_change=may_change_shared(me(), r.made_by)
            )
            for r in rows
        ]
    )


def kept_questions(db: Session, template: tuple[str, ...] = ()) -> s.QuestionsOut:
    """The ready questions of the workspace beside those of a template."""
    kept = [
        s.QuestionOut(id=row.id, text=row.text, may_change=may_change_shared(me(), row.made_by))
        for row in questions_of(db, me().workspace_id)
    ]
    return s.QuestionsOut(template=list(template), kept=kept)


@api.get("/terms", operation_id="getTerms", responses={200: s.TermsOut})
def get_terms() -> Response:
    """The vocabulary."""
    with installation().database.read() as db:
        return answer(_terms(db))


@api.post("/terms", operation_id="addTerm", responses={200: s.TermsOut})
def post_term(body: s.NewTerm) -> Response:
    """Adds a term, or more forms heard for one that is there."""
    with installation().database.write() as db:
        add_term(db, me(), body.text, body.heard)
        return answer(_terms(db))


@api.delete("/terms/<int:term_id>", operation_id="removeTerm", responses={200: s.TermsOut})
def delete_term(path: s.TermPath) -> Response:
    """Takes a term out of the vocabulary; what was put right with it stays."""
    with installation().database.write() as db:
        remove_term(db, me(), path.term_id)
        return answer(_terms(db))


@api.post("/questions", operation_id="keepQuestion", responses={200: s.QuestionsOut})
def post_question(body: s.NewQuestion) -> Response:
    """Keeps a question, to be put to any record."""
    with installation().database.write() as db:
        keep_question(db, me(), body.text)
        return answer(kept_questions(db))


@api.delete("/questions/<int:question_id>", operation_id="removeQuestion", responses={200: s.QuestionsOut})
def delete_question(path: s.QuestionPath) -> Response:
    """Takes a kept question away."""
    with installation().database.write() as db:
        remove_question(db, me(), path.question_id)
        return answer(kept_questions(db))


@api.get("/trust", operation_id="getTrust", responses={200: s.TrustsOut})
def get_trust() -> Response:
    """What people confirmed, corrected and threw out, by kind of line, over all one's meetings."""
    with installation().database.read() as db:
        kinds = [
            s.TrustOut(
                kind=each.kind,
                lines=each.lines,
                confirmed=each.confirmed,
                corrected=each.corrected,
                thrown_out=each.thrown_out,
                reasons=[s.ThrownOut(reason=reason, lines=count) for reason, count in each.reasons.most_common()],
            )
            for each in trust_of(db, me())
        ]
    return answer(s.TrustsOut(kinds=kinds))
