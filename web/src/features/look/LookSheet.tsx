import { Box, Button, Flex, Text } from "@chakra-ui/react"
import { useState } from "react"
import { Fold } from "../../ui/Signs"
import { LeafPart } from "./LeafPart"
import { MarksPart } from "./MarksPart"
import { MorePart } from "./MorePart"
import { OrgansPart } from "./OrgansPart"
import { PhotoPart } from "./PhotoPart"
import type { Asked } from "./queries"
import { Toggle } from "./Toggle"
import { useLook } from "./useLook"

const IN_MORE = ["leaves_count", "lost", "hour", "pests", "on", "opened_on", "growth_length"]

/** One look: same as last time and what is new, or everything; saved in four taps. */
export function LookSheet({
  asked,
  next,
  onDone,
}: {
  asked: Asked
  next?: Asked
  onDone: () => void
}) {
  const { draft, setDraft, photo, setPhoto, problem, pending, save } = useLook(asked, onDone)
  const fields = problem?.fields() ?? {}
  const [opened, setMore] = useState(false)
  const more = opened || IN_MORE.some((f) => f in fields)
  const elsewhere =
    problem && !Object.keys(fields).some((f) => f === "newest_leaf" || IN_MORE.includes(f))
  return (
    <Box asChild>
      <form
        aria-label={`Look at ${asked.code}`}
        onSubmit={(e) => {
          e.preventDefault()
          void save()
        }}
        noValidate
      >
        <PhotoPart asked={asked} photo={photo} onPhoto={setPhoto} />
        <Flex gap="2" my="3" wrap="wrap">
          {asked.last_on !== null && (
            <Toggle
              on={draft.as_last}
              onPress={() => setDraft({ ...draft, as_last: !draft.as_last })}
            >
              Same as last time
            </Toggle>
          )}
          <Text fontSize="sm" color="fg.muted" flex="1 1 140px" alignSelf="center">
            {draft.as_last
              ? "What you do not touch stays as it was. Lengths are measured or left out."
              : "What you leave empty was not looked at."}
          </Text>
        </Flex>
        <LeafPart asked={asked} draft={draft} problem={fields.newest_leaf} onDraft={setDraft} />
        <Box mt="3">
          <MarksPart asked={asked} draft={draft} onDraft={setDraft} />
        </Box>
        <Box mt="3">
          <OrgansPart asked={asked} draft={draft} onDraft={setDraft} />
        </Box>
        <Button
          type="button"
          variant="ghost"
          minH="48px"
          px="0"
          aria-expanded={more}
          onClick={() => setMore(!more)}
        >
          <Fold open={more} /> Counts, roots, growths, note
        </Button>
        {more && <MorePart asked={asked} draft={draft} problems={fields} onDraft={setDraft} />}
        {elsewhere && (
          <Text role="alert" color="state.stop" mt="2">
            {problem.message}
          </Text>
        )}
        <Box
          position="sticky"
          bottom={{ base: "64px", lg: "0" }}
          bg="bg"
          py="3"
          mt="3"
          zIndex="1"
          borderTopWidth="1px"
        >
          <Button type="submit" loading={pending} minH="56px" w="100%" fontSize="lg">
            {next ? `Save, next ${next.code}` : "Save"}
          </Button>
        </Box>
      </form>
    </Box>
  )
}
