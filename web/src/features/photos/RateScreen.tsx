import { Box, Button, Flex, Image, Text } from "@chakra-ui/react"
import { queryOptions, useQuery } from "@tanstack/react-query"
import { useState } from "react"
import { Link } from "react-router"
import { answer, client, keyed } from "../../api/client"
import { Entry } from "../../ui/Entry"
import { useNotice } from "../../ui/noticeContext"
import { Loaded, PageHead, Teach } from "../../ui/Page"
import { usePress } from "../../ui/usePress"
import { useUndo } from "../../ui/useUndo"
import { photoSource } from "./queries"

const SCORES = Array.from({ length: 11 }, (_, i) => i)
const blindQuery = queryOptions({
  queryKey: ["photos", "blind"],
  queryFn: () => answer(client.GET("/api/photos-blind")),
})

/** Photos by number, in an order drawn by a seed: who rates does not know which plant, and not when. */
export function RateScreen() {
  return (
    <Loaded query={useQuery(blindQuery)}>
      {(photos) => (
        <>
          <PageHead title="Rate photos" line="By number: neither plant nor day is told.">
            <Button asChild variant="outline" minH="44px">
              <Link to="/leaf" data-back>
                Close
              </Link>
            </Button>
          </PageHead>
          {photos[0] ? (
            <Rate
              key={`${photos[0].photo_id}-${photos[0].rated}`}
              photo={photos[0]}
              of={photos.length}
            />
          ) : (
            <Teach>No photo yet. Take one at a look.</Teach>
          )}
        </>
      )}
    </Loaded>
  )
}

function Rate({
  photo,
  of,
}: {
  photo: { number: number; photo_id: number; rated: number }
  of: number
}) {
  const [by, setBy] = useState("")
  const notice = useNotice()
  const undo = useUndo()
  const save = usePress(
    (score: number, key: string) =>
      answer(
        client.POST("/api/photos/{photo_id}/ratings", {
          params: { ...keyed(key), path: { photo_id: photo.photo_id } },
          body: { score, by },
        }),
      ),
    (stored) => notice({ text: "Score saved.", undo: () => undo("rating", stored.id) }),
  )
  return (
    <Box maxW="640px">
      <Image
        src={photoSource(photo.photo_id, "screen")}
        alt={`Photo number ${photo.number}`}
        borderRadius="md"
        maxH="60vh"
      />
      <Text mt="2">
        {of} photos. This one was rated {photo.rated} times.
      </Text>
      <Flex gap="1" wrap="wrap" mt="2" role="group" aria-label="Score, 0 worst to 10 best">
        {SCORES.map((n) => (
          <Button key={n} variant="outline" minH="48px" minW="48px" onClick={() => save.mutate(n)}>
            {n}
          </Button>
        ))}
      </Flex>
      <Box mt="2">
        <Entry label="Rated by" w="240px" value={by} onValue={setBy} />
      </Box>
    </Box>
  )
}
