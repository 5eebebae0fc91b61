import { Box, Button, Flex } from "@chakra-ui/react"
import { type ReactNode, useCallback, useEffect, useState } from "react"
import { type Notice, NoticeContext } from "./noticeContext"

/** The line that says what was just done; it stays long enough to undo. */
export function NoticeProvider({ children }: { children: ReactNode }) {
  const [notice, setNotice] = useState<Notice | null>(null)
  const show = useCallback((n: Notice) => setNotice(n), [])
  useEffect(() => {
    if (!notice) return
    const timer = setTimeout(() => setNotice(null), 12_000)
    return () => clearTimeout(timer)
  }, [notice])
  return (
    <NoticeContext value={show}>
      {children}
      <Box role="status" aria-live="polite" position="fixed" left="0" right="0" bottom={{ base: "68px", md: "5" }} zIndex="15" pointerEvents="none">
        {notice && (
          <Flex mx="auto" w="fit-content" maxW="92vw" align="center" gap="4" bg="ink.solid" color="ink.contrast" px="5" py="3" borderRadius="lg" pointerEvents="auto">
            <span>{notice.text}</span>
            {notice.undo && (
              <Button size="sm" variant="outline" color="ink.contrast" borderColor="ink.contrast" _hover={{ bg: "transparent" }} onClick={() => { notice.undo?.(); setNotice(null) }}>
                Undo
              </Button>
            )}
          </Flex>
        )}
      </Box>
    </NoticeContext>
  )
}
