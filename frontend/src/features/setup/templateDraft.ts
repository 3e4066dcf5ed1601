import type { Schemas } from "../../api/client";

export type Template = Schemas["TemplateShape"];
export type Section = Schemas["SectionShape"];

/** A template being written: each section has a number of its own that stays with it when it is moved. */
export type Draft = Omit<Template, "sections"> & { sections: (Section & { id: number })[] };

export function draftOf(template: Template): Draft {
  return { ...template, sections: template.sections.map((section, id) => ({ ...section, id })) };
}

export function templateOf(draft: Draft): Template {
  return {
    ...copyOf(draft),
    name: draft.name,
    sections: draft.sections.map(({ title, kinds, words, voices, group, most }) => ({ title, kinds, words, voices, group, most })),
  };
}

/** A section or template as it is being written. */
export type Step =
  | { type: "set"; part: Partial<Omit<Template, "sections">> }
  | { type: "section"; at: number; part: Partial<Section> }
  | { type: "add" }
  | { type: "remove"; at: number }
  | { type: "move"; at: number; by: 1 | -1 };

export const EMPTY_SECTION: Section = { title: "", kinds: [], words: [], voices: [], group: "", most: null };

/** The template after one step of writing; steps that lead nowhere leave it as it is. */
export function written(template: Draft, step: Step): Draft {
  const { sections } = template;
  switch (step.type) {
    case "set":
      return { ...template, ...step.part };
    case "section":
      return { ...template, sections: sections.map((each, at) => (at === step.at ? { ...each, ...step.part } : each)) };
    case "add":
      return { ...template, sections: [...sections, { ...EMPTY_SECTION, id: Math.max(-1, ...sections.map((each) => each.id)) + 1 }] };
    case "remove":
      return { ...template, sections: sections.filter((_, at) => at !== step.at) };
    case "move":
      return { ...template, sections: moved(sections, step.at, step.at + step.by) };
  }
}

function moved(sections: Draft["sections"], from: number, to: number): Draft["sections"] {
  const section = sections[from];
  if (!section || to < 0 || to >= sections.length) return sections;
  const rest = sections.filter((_, at) => at !== from);
  return [...rest.slice(0, to), section, ...rest.slice(to)];
}

/** A template of one's own that begins like another one. */
export function copyOf({ name, sections, labels, agenda, questions, length }: Template): Template {
  return { name: `${name}, our way`, sections, labels, agenda, questions, length };
}

/** What people type with commas or on lines of their own, as a list. */
export function listed(text: string, between: RegExp): string[] {
  return [
    ...new Set(
      text
        .split(between)
        .map((each) => each.trim())
        .filter(Boolean),
    ),
  ];
}
