/** Print style of an A4 sheet: small type, tight rows, nothing cut in two. */
export const A4 = {
  "@media print": {
    "& *": { fontSize: "9.5pt !important", lineHeight: "1.3 !important" },
    "& h1": { fontSize: "14pt !important" },
    "& td, & th": { paddingBlock: "2px !important", paddingRight: "6px !important" },
    "& table": { minWidth: "0 !important" },
    "& tr, & section": { breakInside: "avoid" },
    "& a": { textDecoration: "none !important" },
  },
}
