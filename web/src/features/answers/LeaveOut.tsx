import { Button, Flex } from "@chakra-ui/react"
import { useState } from "react"
import { answer, client, keyed, type Schemas } from "../../api/client"
import { Entry } from "../../ui/Entry"
import { usePress } from "../../ui/usePress"

/** Leaving a plant out, with the reason said before its leaves are measured. */
export function LeaveOut({ trialId, member }: { trialId: number; member: Schemas["MemberOut"] }) {
  const [why, setWhy] = useState<string | null>(null)
  const send = usePress(
    (_: null, key: string) =>
      answer(
        client.POST("/api/trials/{trial_id}/leave-out", {
          params: { ...keyed(key), path: { trial_id: trialId } },
          body: { pot_id: member.pot_id, why: why ?? "" },
        }),
      ),
    () => setWhy(null),
  )
  if (why === null)
    return (
      <Button
        variant="ghost"
        minH="44px"
        onClick={() => setWhy("")}
        aria-label={`Leave out the pair of ${member.code}`}
      >
        Leave out
      </Button>
    )
  return (
    <Flex gap="2" align="flex-end" wrap="wrap">
      <Entry label="Why" value={why} onValue={setWhy} problem={send.error?.message} />
      <Button
        minH="48px"
        variant="outline"
        loading={send.isPending}
        onClick={() => send.mutate(null)}
      >
        Save
      </Button>
      <Button minH="48px" variant="ghost" onClick={() => setWhy(null)}>
        Cancel
      </Button>
    </Flex>
  )
}
