import { useEffect, useState } from "react"

/** A chosen file as the page may show it: read in, since its policy lets no other address in. */
export function useShown(file: File | null): string | null {
  const [read, setRead] = useState<{ file: File; url: string } | null>(null)
  useEffect(() => {
    if (!file) return
    const reader = new FileReader()
    reader.onload = () => typeof reader.result === "string" && setRead({ file, url: reader.result })
    reader.readAsDataURL(file)
    return () => {
      reader.onload = null
    }
  }, [file])
  return file && read?.file === file ? read.url : null
}
