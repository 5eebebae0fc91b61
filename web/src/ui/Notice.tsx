import { Box, Button, Flex } from "@chakra-ui/react"
import { type ReactNode, useCallback, useEffect, useState } from "react"
import { type Notice, NoticeContext } from "./noticeContext"

/** Says what was just done, long enough to undo; never over the button at the thumb. */
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
      <Box
        role="status"
        aria-live="polite"
        position="fixed"
        left={{ base: "2", md: "auto" }}
        right={{ base: "92px", md: "6" }}
        top={{ base: "2", md: "auto" }}
        bottom={{ base: "auto", md: "5" }}
        zIndex="15"
        pointerEvents="none"
      >
        {notice && (
          <Flex
            w="fit-content"
            maxW="560px"
            align="center"
            gap="4"
            bg="ink.solid"
            color="ink.contrast"
            px="5"
            py="3"
            borderRadius="lg"
          >
            <span>{notice.text}</span>
            {notice.undo && (
              <Button
                size="sm"
                variant="outline"
                pointerEvents="auto"
                color="ink.contrast"
                borderColor="ink.contrast"
                _hover={{ bg: "transparent" }}
                onClick={() => {
                  notice.undo?.()
                  setNotice(null)
                }}
              >
                Undo
              </Button>
            )}
          </Flex>
        )}
      </Box>
    </NoticeContext>
  )
}
