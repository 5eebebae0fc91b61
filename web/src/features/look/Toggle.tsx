import { Button } from "@chakra-ui/react"
import type { ReactNode } from "react"

/** A button that is in or out; as high as a wet thumb needs. */
export function Toggle({
  on,
  onPress,
  children,
  label,
}: {
  on: boolean
  onPress: () => void
  children: ReactNode
  label?: string
}) {
  return (
    <Button
      type="button"
      variant={on ? "solid" : "outline"}
      aria-pressed={on}
      aria-label={label}
      minH="48px"
      px="3"
      onClick={onPress}
    >
      {children}
    </Button>
  )
}
