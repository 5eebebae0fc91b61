import { Button } from "@chakra-ui/react"
import type { ReactNode } from "react"

type Props = {
  children: ReactNode
  type?: "button" | "submit"
  /** Under way: a second press does nothing. */
  pending?: boolean
  onClick?: () => void
}

/**
 * What a step of the walk ends with, under the thumb. To exchange what is pressed for a wheel and back took longer than
 * most entries take to be kept; on a line so slow that it does not, the button fades.
 */
export function NextButton({ children, type = "button", pending = false, onClick }: Props) {
  return (
    <Button
      data-key="Enter"
      type={type}
      w="100%"
      minH="72px"
      fontSize="xl"
      aria-busy={pending}
      _loading={{ opacity: 0.5, transition: "opacity 0.1s 0.3s" }}
      onClick={pending ? undefined : onClick}
    >
      {children}
    </Button>
  )
}
