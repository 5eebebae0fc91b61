import { Box, Flex, Heading, Text } from "@chakra-ui/react"
import type { UseQueryResult } from "@tanstack/react-query"
import { type ReactNode, useEffect } from "react"
import { Link, useLocation } from "react-router"
import type { ApiProblem } from "../api/problem"

/** Title, one line under it, and the actions of a page. */
export function PageHead({
  title,
  line,
  children,
}: {
  title: string
  line?: ReactNode
  children?: ReactNode
}) {
  useEffect(() => {
    document.title = `${title} · Fenwa`
  }, [title])
  return (
    <Flex justify="space-between" align="flex-end" wrap="wrap" gap="3" mb="4">
      <Box minW="0">
        <Heading as="h1" fontSize="1.45rem" fontWeight="semibold" letterSpacing="-0.01em">
          {title}
        </Heading>
        {line && (
          <Text color="fg.muted" mt="0.5">
            {line}
          </Text>
        )}
      </Box>
      {children && (
        <Flex gap="2" wrap="wrap">
          {children}
        </Flex>
      )}
    </Flex>
  )
}

/** White card. */
export function Card({
  title,
  children,
  label,
  ...rest
}: { title?: ReactNode; label?: string; children: ReactNode } & React.ComponentProps<typeof Box>) {
  return (
    <Box
      as="section"
      aria-label={label}
      bg="bg.panel"
      borderWidth="1px"
      borderRadius="lg"
      p="4"
      minW="0"
      {...rest}
    >
      {title && (
        <Heading as="h2" fontSize="md" fontWeight="semibold" mb="2">
          {title}
        </Heading>
      )}
      {children}
    </Box>
  )
}

/** Waits, or says why a page cannot be shown, or shows it. */
export function Loaded<T>({
  query,
  children,
}: {
  query: Pick<UseQueryResult<T, ApiProblem>, "data" | "isError" | "error">
  children: (data: T) => ReactNode
}) {
  if (query.data !== undefined) return <>{children(query.data)}</>
  if (query.isError)
    return (
      <Text role="alert" py="8">
        {query.error?.message}
      </Text>
    )
  return (
    <Text py="8" color="fg.muted" role="status">
      One moment.
    </Text>
  )
}

/** An empty page teaches: what it is for, and the first thing to do. */
export function Teach({ children, action }: { children: ReactNode; action?: ReactNode }) {
  const path = useLocation().pathname
  return (
    <Card maxW="620px">
      <Text mb="3">{children}</Text>
      {action}
      <Text mt="3" fontSize="sm">
        <Link to={`/help?of=${encodeURIComponent(path)}`} style={{ textDecoration: "underline" }}>
          How this station works
        </Link>
      </Text>
    </Card>
  )
}
