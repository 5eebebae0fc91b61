import { Box, Flex, Text } from "@chakra-ui/react"
import { CookingPot, Droplets, Ellipsis, Flower2, Leaf, type LucideIcon } from "lucide-react"
import { useState } from "react"
import { Link, useLocation } from "react-router"
import { BOTTOM, HELP_PAGE, isHere, STATIONS, SUMS } from "./stations"

const ICONS: Record<string, LucideIcon> = {
  round: Droplets,
  mix: CookingPot,
  pots: Flower2,
  leaf: Leaf,
}

/** Five places at the thumb; the rest of the stations under More. */
export function BottomBar() {
  const path = useLocation().pathname
  const [open, setOpen] = useState(false)
  const rest = STATIONS.filter((s) => !BOTTOM.some((k) => k === s.key))
  return (
    <Box
      as="nav"
      aria-label="Stations"
      display={{ base: "block", md: "none" }}
      position="fixed"
      bottom="0"
      left="0"
      right="0"
      bg="bg.panel"
      borderTopWidth="1px"
      zIndex="10"
    >
      {open && (
        <Flex as="ul" listStyleType="none" direction="column" p="2" borderBottomWidth="1px">
          {[...rest, SUMS, HELP_PAGE].map((s) => (
            <Box as="li" key={s.key}>
              <Link
                to={s.to}
                onClick={() => setOpen(false)}
                aria-current={isHere(s.to, path) ? "page" : undefined}
              >
                <Box p="3" fontSize="lg">
                  {s.label}
                </Box>
              </Link>
            </Box>
          ))}
        </Flex>
      )}
      <Flex>
        {STATIONS.filter((s) => BOTTOM.some((k) => k === s.key)).map((s) => {
          const Icon = ICONS[s.key] ?? Droplets
          const here = isHere(s.to, path)
          return (
            <Box key={s.key} flex="1">
              <Link
                to={s.to}
                onClick={() => setOpen(false)}
                aria-current={here ? "page" : undefined}
              >
                <Item Icon={Icon} label={s.label} here={here} />
              </Link>
            </Box>
          )
        })}
        <Box as="button" flex="1" aria-expanded={open} onClick={() => setOpen(!open)}>
          <Item Icon={Ellipsis} label="More" here={rest.some((s) => isHere(s.to, path))} />
        </Box>
      </Flex>
    </Box>
  )
}

function Item({ Icon, label, here }: { Icon: LucideIcon; label: string; here: boolean }) {
  return (
    <Flex direction="column" align="center" py="2" minH="58px" bg={here ? "bg.subtle" : undefined}>
      <Icon size={20} aria-hidden />
      <Text fontSize="xs" fontWeight={here ? "bold" : "medium"}>
        {label}
      </Text>
    </Flex>
  )
}
