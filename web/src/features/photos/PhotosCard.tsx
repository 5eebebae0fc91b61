import { Box, Button, Flex, Image, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { Link } from "react-router"
import { day } from "../../ui/format"
import { Card } from "../../ui/Page"
import { useUndo } from "../../ui/useUndo"
import { useNotice } from "../../ui/noticeContext"
import { diskQuery, photosQuery, photoSource } from "./queries"

const MB = 1e6

/** Photos of a plant in the order they were taken: measure in one, or lay two over each other. */
export function PhotosCard({ potId, today, code }: { potId: number; today: string; code: string }) {
  const photos = useQuery(photosQuery(potId)).data?.photos ?? []
  const disk = useQuery(diskQuery).data
  const undo = useUndo()
  const notice = useNotice()
  if (photos.length === 0) return null
  return (
    <Card title="Photos" label="Photos">
      <Flex
        gap="3"
        overflowX="auto"
        pb="2"
        tabIndex={0}
        role="region"
        aria-label="Photos, oldest first"
      >
        {photos.map((p) => (
          <Box key={p.id} flex="0 0 132px">
            <Link to={`/photos/${p.id}?pot=${potId}`}>
              <Image
                src={photoSource(p.id, "list")}
                alt={`${code} on ${day(p.on)}`}
                w="132px"
                h="112px"
                objectFit="cover"
                borderRadius="md"
                loading="lazy"
              />
              <Text fontSize="sm" textDecoration="underline" textUnderlineOffset="0.2em">
                Measure {day(p.on, today)}
              </Text>
            </Link>
            <Button
              size="sm"
              variant="ghost"
              minH="44px"
              aria-label={`Delete the photo of ${day(p.on, today)}`}
              onClick={() => {
                undo("photo", p.id)
                notice({ text: "Photo deleted.", undo: () => undo("photo", p.id, true) })
              }}
            >
              Delete
            </Button>
          </Box>
        ))}
      </Flex>
      <Flex gap="3" wrap="wrap" align="center">
        {photos.length > 1 ? (
          <Button asChild minH="44px" variant="outline">
            <Link to={`/compare/${potId}`}>Compare two photos</Link>
          </Button>
        ) : (
          <Text fontSize="sm" color="fg.muted">
            One photo so far. Take the next from the same place.
          </Text>
        )}
        {disk && (
          <Text fontSize="sm" color="fg.muted">
            {disk.photos} photos of all plants, {(disk.bytes / MB).toFixed(1)} MB in {disk.folder}.{" "}
            <a href="/api/photos.zip" download style={{ textDecoration: "underline" }}>
              Export
            </a>
          </Text>
        )}
      </Flex>
    </Card>
  )
}
