/** Chooses a text file and reads it; cleared at each press, so that a mended file can be chosen again. */
export function FileText({ label, onText }: { label: string; onText: (text: string) => void }) {
  return (
    <input
      type="file"
      accept=".csv,text/csv,text/plain"
      aria-label={label}
      style={{ maxWidth: "100%" }}
      onClick={(e) => {
        e.currentTarget.value = ""
      }}
      onChange={(e) => void e.target.files?.[0]?.text().then(onText)}
    />
  )
}
