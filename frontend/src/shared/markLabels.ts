/** The label of a mark that is set without choosing one. */
export const WORTH_KEEPING = "worth keeping";
