import { amount } from "../../ui/format"
import { Box, Flex, Image, Text } from "@chakra-ui/react"
import type { Asked } from "./queries"
import { useShown } from "./useShown"

/** The last photo beside the one to be taken: the same place, the same light. */
export function PhotoPart({
  asked,
  photo,
  onPhoto,
}: {
  asked: Asked
  photo: File | null
  onPhoto: (photo: File | null) => void
}) {
  const shown = useShown(photo)
  const last =
    asked.photo_id === null
      ? null
      : "/api/photos/{photo_id}/{size}"
          .replace("{photo_id}", String(asked.photo_id))
          .replace("{size}", "list")
  return (
    <Flex gap="3" align="center" bg="bg.subtle" borderRadius="md" p="2">
      {last && (
        <Image
          src={last}
          alt={`Last photo of ${asked.code}`}
          w="84px"
          h="76px"
          objectFit="cover"
          borderRadius="md"
        />
      )}
      <Text fontSize="sm" flex="1">
        {asked.last_on === null
          ? "First look: nothing to compare yet."
          : `Last look: ${asked.leaves_count === null ? "leaves not counted" : `${asked.leaves_count} leaves`}` +
            (asked.leaves[0]?.mm != null ? `, newest ${amount(asked.leaves[0].mm, "mm")}` : "")}
        {photo && ` Photo taken: ${photo.name}.`}
      </Text>
      {shown && (
        <Image
          src={shown}
          alt="The photo just taken"
          w="60px"
          h="60px"
          objectFit="cover"
          borderRadius="md"
        />
      )}
      <Box asChild cursor="pointer">
        <label>
          <Box
            as="span"
            display="inline-flex"
            alignItems="center"
            minH="48px"
            px="4"
            borderWidth="1px"
            borderColor="border.strong"
            borderRadius="md"
            bg="bg.panel"
            fontWeight="medium"
          >
            {photo ? "Another" : "Photo"}
          </Box>
          <input
            type="file"
            accept="image/jpeg,image/png,image/webp,image/heic,image/heif"
            capture="environment"
            aria-label="Photo"
            style={{ position: "absolute", width: 1, height: 1, opacity: 0 }}
            onChange={(e) => onPhoto(e.target.files?.[0] ?? null)}
          />
        </label>
      </Box>
    </Flex>
  )
}
