import { Button } from "@chakra-ui/react"

/** A button that chooses a file; the same file can be chosen again. */
export function FileButton({
  label,
  accept,
  loading,
  onFile,
}: {
  label: string
  accept: string
  loading?: boolean
  onFile: (file: File) => void
}) {
  return (
    <Button asChild variant="outline" minH="44px" loading={loading}>
      <label>
        {label}
        <input
          type="file"
          accept={accept}
          style={{ position: "absolute", width: 1, height: 1, opacity: 0 }}
          onChange={(e) => {
            const chosen = e.target.files?.[0]
            e.target.value = ""
            if (chosen) onFile(chosen)
          }}
        />
      </label>
    </Button>
  )
}
