"""The report and the letter as DOCX: styles, tables, equations and pictures that can be worked on."""

from __future__ import annotations

import io
from collections.abc import Iterable, Sequence
from typing import Any

import pypdfium2  # type: ignore[import-untyped]
from django.utils.html import strip_tags
from docx import Document
from docx.document import Document as Documented
from docx.oxml import parse_xml
from docx.shared import Pt

from plumb_server.reports import plan
from plumb_server.reports.office_math import omml
from plumb_server.reports.pictures import Picture
from plumb_server.reports.services import Progress, context, unseen
from plumb_server.reviews.models import Review

SHARPNESS = 3.0
"""Pixels of a picture for each point."""


def report(review: Review, progress: Progress = unseen) -> bytes:
    """The report of a review as DOCX."""
    content = context(review, plan.sections_of(review), progress)
    made = _Made(content)
    made.cover()
    for i, section in enumerate(content["sections"], 1):
        made.document.add_heading(f"{i} {section['title']}", 1)
        getattr(made, section["id"])()
        progress(0.6 + 0.4 * i / len(content["sections"]))
    made.paragraph(f"Engine {content['engine']} · recheck {content['hash']}", "quiet")
    return made.bytes()


def letter(review: Review, progress: Progress = unseen) -> bytes:
    """A letter of the open findings as DOCX."""
    content = context(review, (), progress, open_only=True)
    made = _Made(content)
    made.letterhead()
    made.paragraph(f"{content['now']:%d %B %Y}")
    made.document.add_heading(review.title, 0)
    count = len(content["findings"])
    made.paragraph(
        f"Peer review of the seismic analysis: {count} {'finding is' if count == 1 else 'findings are'} open. "
        "Please answer each of them."
    )
    made.evidence()
    return made.bytes()


def png(picture: Picture) -> bytes:
    """A drawing as PNG."""
    from weasyprint import HTML

    page = (
        f"<style>@page {{ size: {picture.width}pt {picture.height}pt; margin: 0 }} body {{ margin: 0 }}"
        f"svg {{ display: block }}</style>{picture.svg}"
    )
    document = pypdfium2.PdfDocument(HTML(string=page).write_pdf())
    try:
        image = document[0].render(scale=SHARPNESS).to_pil()
    finally:
        document.close()
    data = io.BytesIO()
    image.save(data, "PNG")
    return data.getvalue()


class _Made:
    """A document in the making; a method for each section of the plan."""

    def __init__(self, content: dict[str, Any]):
        self.content = content
        self.document: Documented = Document()
        normal = self.document.styles["Normal"]
        normal.font.name, normal.font.size = "Calibri", Pt(10)
        self.document.core_properties.title = f"{content['review'].title}: review report"
        self.document.core_properties.author = content["letterhead"]["name"] or "Vigilant Plumb"
        footer = content["letterhead"]["footer"]
        if footer:
            self.document.sections[0].footer.paragraphs[0].text = footer

    def bytes(self) -> bytes:
        data = io.BytesIO()
        self.document.save(data)
        return data.getvalue()

    def paragraph(self, text: str, style: str = "") -> None:
        added = self.document.add_paragraph()
        run = added.add_run(text)
        run.italic = style == "quiet"

    def bullets(self, lines: Iterable[str]) -> None:
        for line in lines:
            self.document.add_paragraph(line, style="List Bullet")

    def table(self, headings: Sequence[str], rows: Iterable[Sequence[Any]]) -> None:
        table = self.document.add_table(rows=1, cols=len(headings))
        table.style = "Light Grid Accent 1"
        for cell, heading in zip(table.rows[0].cells, headings, strict=True):
            cell.text = heading
        for row in rows:
            for cell, value in zip(table.add_row().cells, row, strict=True):
                cell.text = "" if value is None else str(value)
        for each in table.rows:
            for cell in each.cells:
                for paragraph in cell.paragraphs:
                    for run in paragraph.runs:
                        run.font.size = Pt(8.5)
        self.document.add_paragraph()

    def picture(self, picture: Picture) -> None:
        self.document.add_picture(io.BytesIO(png(picture)), width=Pt(min(picture.width, 440.0)))
        self.document.add_paragraph(picture.caption, style="Caption")

    def letterhead(self) -> None:
        head = self.content["letterhead"]
        for i, line in enumerate([head["name"], *head["lines"]] if head["name"] else []):
            self.document.add_paragraph().add_run(line).bold = i == 0

    def cover(self) -> None:
        c = self.content
        self.letterhead()
        self.document.add_heading(c["review"].title, 0)
        self.paragraph("Peer review of the seismic analysis")
        for line in (c["review"].place, c["review"].client and f"for {c['review'].client}"):
            if line:
                self.paragraph(line)
        label = c["submission"].label if c["submission"] else "none"
        self.paragraph(f"{c['edition'].title} · submission {label}")
        for member in c["team"]:
            self.paragraph(f"{member.user.name}{', ' + member.user.firm if member.user.firm else ''} ({member.role})")
        self.paragraph(f"{c['now']:%d %B %Y}")
        self.document.add_page_break()  # type: ignore[no-untyped-call]

    def scope(self) -> None:
        c = self.content
        if c["review"].description:
            self.paragraph(c["review"].description)
        if c["submission"]:
            self.paragraph(
                f"The values of submission {c['submission'].label} were rechecked independently against "
                f"{c['edition'].title}."
            )
        self.table(("Basis of the independent values", ""), c["basis"])
        self.bullets(c["notes"])
        self.table(("Exhibit", "SHA-256"), [(e.name, e.sha256) for e in c["exhibits"]])

    def definitions(self) -> None:
        self.table(("Term", "Meaning in this report"), self.content["definitions"])

    def register(self) -> None:
        self.table(
            ("No.", "Finding", "Clause", "Severity", "State"),
            [
                (f.number, f.title, f.clause, f.get_severity_display(), f.status)
                for f in (each["finding"] for each in self.content["findings"])
            ],
        )

    def pictures(self) -> None:
        for each in [*self.content["pictures"], *self.content["logs"]]:
            self.picture(each["drawing"])

    def evidence(self) -> None:
        for each in self.content["findings"]:
            finding = each["finding"]
            self.document.add_heading(f"{finding.number} · {finding.title}", 2)
            about = (finding.get_severity_display(), finding.status, finding.clause)
            self.paragraph(" · ".join(part for part in about if part), "quiet")
            self.paragraph(finding.text)
            if each["rows"]:
                self.table(
                    ("Value", "submitted", "recomputed, carried", "recomputed, independent", "Unit", "Place"),
                    [
                        (
                            r["label"],
                            r["theirs"] or "not stated",
                            f"{r['carried']} {r['carried_deviation']}".strip(),
                            f"{r['independent']} {r['independent_deviation']}".strip(),
                            r["unit"],
                            r["source"],
                        )
                        for r in each["rows"]
                    ],
                )
            for step in each["steps"]:
                added = self.document.add_paragraph()
                added.add_run(f"{step['clause']}  ").italic = True
                if step["again"]:
                    added.add_run(
                        f"{step['symbol']} = {step['result']} {step['unit']}, as under finding {step['again']}"
                    )
                    continue
                if step["tex"]:
                    added._p.append(parse_xml(omml(step["tex"])))
                added.add_run(f"   {step['symbol']} = {step['result']} {step['unit']}").bold = True
            for message in each["thread"]:
                added = self.document.add_paragraph()
                added.add_run(f"{message.author.name}, {message.at:%d %B %Y}: ").bold = True
                added.add_run(message.text)

    def history(self) -> None:
        self.table(
            ("No.", "Finding", *self.content["history_of"], "State"),
            [(h["number"], h["title"], *h["marks"], h["status"]) for h in self.content["history"]],
        )

    def results(self) -> None:
        c = self.content
        verdicts = ("total", "agrees", "differs", "breaches", "question", "gap", "open")
        self.table(
            ("Stage", "checks", "agree", "differ", "limit not met", "questions", "not stated", "missing input"),
            [(s["stage"], *(s[v] for v in verdicts)) for s in c["stages"]],
        )
        self.paragraph(
            f"{c['coverage']['independent']} of {c['coverage']['claims']} submitted values were rechecked with the "
            f"reviewer's inputs only, and {c['coverage']['recomputed']} with inputs from the submission."
        )

    def causes(self) -> None:
        rows = [(r["start"], r["words"], r["codes"], r["explains"]) for r in self.content["causes"]["rows"]]
        self.table(("Starts at", "Cause", "Code", "values"), rows)

    def sensitivity(self) -> None:
        if self.content["effects"]:
            self.picture(self.content["effects"]["drawing"])
        self.table(
            ("Input", "Otherwise", "Greatest effect", "other verdicts"),
            [(s["input"], s["value"], s["moved"], s["flips"]) for s in self.content["sensitivity"]],
        )

    def requirements(self) -> None:
        self.table(
            ("Requirement", "Clause", "State", "level"),
            [
                (f"{r['words']}{': ' + r['why'] if r['why'] else ''}", r["clause"], r["state"], r["level"])
                for r in self.content["requirements"]
            ],
        )

    def editions(self) -> None:
        across = self.content["across"]
        if across["rows"]:
            rows = [(r["name"], *r["values"]) for r in across["rows"]]
            self.table(("Quantity", *across["editions"]), rows)
        else:
            self.paragraph("The brief names no edition to compare with.")

    def assumptions(self) -> None:
        rows = [(f"{f['meaning']} {f['direction']}".strip(), f["value"], f["clause"]) for f in self.content["assumed"]]
        self.table(("Fact", "Value", "Clause"), rows)

    def unchecked(self) -> None:
        c = self.content
        lists = (
            ("Origins of deviations without a finding", [r["label"] for r in c["unfiled"]]),
            ("Not stated in the submission", [f"{r['meaning']} ({r['label']})" for r in c["gaps"]]),
            ("Questions about the submission", [f"{r['label']}: {r['note']}" for r in c["questions"]]),
            ("Set aside in this review", [f"{r['label']} ({r['slip']}): {r['note']}" for r in c["set_aside"]]),
            ("Not checked", [*(f"{r['label']}: {r['note']}" for r in c["open"]), *c["not_covered"]]),
        )
        for title, lines in lists:
            if lines:
                self.document.add_heading(title, 2)
                self.bullets(strip_tags(line) for line in lines)
