/** A tick without words beside it, in a row that names it: a thumb reaches twice its size, the row stays as high. */
export function Tick({
  label,
  checked,
  onChange,
}: {
  label: string
  checked: boolean
  onChange: (checked: boolean) => void
}) {
  return (
    <label style={{ display: "inline-block", padding: 10, margin: -10 }}>
      <input
        type="checkbox"
        aria-label={label}
        checked={checked}
        onChange={(e) => onChange(e.target.checked)}
        style={{ width: 22, height: 22, display: "block" }}
      />
    </label>
  )
}
