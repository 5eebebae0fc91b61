import { Box, Flex, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { Link, useLocation } from "react-router"
import { settingsQuery, stationsQuery } from "../api/queries"
import { saltColour } from "./ramp"
import { isHere, STATIONS } from "./stations"

/** The channel: stations along the way of the salt, each with its live figure. */
export function Channel() {
  const stations = useQuery(stationsQuery).data ?? []
  const name = useQuery(settingsQuery).data?.collection_name
  const path = useLocation().pathname
  const figure = (key: string) => stations.find((s) => s.key === key)
  const colours = STATIONS.map((s) => figure(s.key)?.ec_uS_cm ?? null)
  const known = (i: number) =>
    colours[i] ??
    colours.slice(0, i).findLast((c) => c !== null) ??
    colours.find((c) => c !== null) ??
    20
  const gradient = STATIONS.map(
    (_, i) => `${saltColour(known(i))} ${((i + 0.1) / STATIONS.length) * 100}%`,
  ).join(", ")
  return (
    <Flex
      as="header"
      bg="bg.panel"
      borderBottomWidth="1px"
      px="6"
      gap="5"
      display={{ base: "none", md: "flex" }}
      align="stretch"
    >
      <Box py="4" minW="104px">
        <Text fontSize="xl" fontWeight="semibold" letterSpacing="-0.01em">
          fenwa
        </Text>
        <Text fontSize="xs" color="fg.muted">
          {name}
        </Text>
      </Box>
      <Box as="nav" aria-label="Stations" flex="1" minW="0" position="relative" pt="2" pb="4">
        <Flex as="ul" listStyleType="none">
          {STATIONS.map((s, i) => {
            const here = isHere(s.to, path)
            return (
              <Box as="li" key={s.key} flex="1" minW="0">
                <Link
                  to={s.to}
                  aria-current={here ? "page" : undefined}
                  aria-keyshortcuts={String(i + 1)}
                >
                  <Box
                    px="2.5"
                    py="1.5"
                    borderRadius="md"
                    bg={here ? "bg.subtle" : undefined}
                    _hover={{ bg: "bg.subtle" }}
                    mr="2"
                  >
                    <Text fontWeight={here ? "bold" : "medium"}>{s.label}</Text>
                    <Text fontSize="xs" color="fg.muted" truncate>
                      {figure(s.key)?.figure ?? "\u00a0"}
                    </Text>
                  </Box>
                  <Box
                    aria-hidden
                    position="absolute"
                    bottom="9px"
                    ml="2.5"
                    boxSize={here ? "15px" : "11px"}
                    mb={here ? "-2px" : "0"}
                    borderRadius="full"
                    borderWidth="3px"
                    borderColor={here ? "fg" : "border.strong"}
                    bg="bg.panel"
                    zIndex="1"
                  />
                </Link>
              </Box>
            )
          })}
        </Flex>
        <Box
          aria-hidden
          position="absolute"
          bottom="12px"
          left="0"
          right="0"
          h="5px"
          borderRadius="full"
          style={{ background: `linear-gradient(90deg, ${gradient})` }}
        />
      </Box>
    </Flex>
  )
}
