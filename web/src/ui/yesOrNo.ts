/** What a select of "not known, no, yes" was left at; null: not known. */
export const yesOrNo = (value: string) => (value === "" ? null : value === "yes")
