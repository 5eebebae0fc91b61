import { Text } from "@chakra-ui/react"
import type { ReactNode } from "react"
import { Link } from "react-router"

/** The name of a pot or a kind in a list, which leads to its page. */
export function NameLink({ to, children }: { to: string; children: ReactNode }) {
  return (
    <Link to={to}>
      <Text as="span" fontWeight="semibold" textDecoration="underline" textUnderlineOffset="0.2em">
        {children}
      </Text>
    </Link>
  )
}
