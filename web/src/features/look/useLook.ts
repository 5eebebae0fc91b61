import { useRef, useState } from "react"
import type { Schemas } from "../../api/client"
import { newKey } from "../../api/keys"
import { post, takeBack } from "../../api/outbox"
import type { ApiProblem } from "../../api/problem"
import { useNotice } from "../../ui/noticeContext"
import { useRefreshAll } from "../../ui/usePress"
import { useUndo } from "../../ui/useUndo"
import { bodyOf, type Draft, emptyDraft } from "./draft"
import { type Asked, lookPath, PHOTOS_OF_LOOK } from "./queries"

/** A look being entered: what is typed, what was refused, and the way to keep it, in reach of Fenwa or not. */
export function useLook(asked: Asked, onDone: () => void) {
  const [draft, setDraft] = useState<Draft>(() => emptyDraft(asked))
  const [photo, setPhoto] = useState<File | null>(null)
  const [problem, setProblem] = useState<ApiProblem | null>(null)
  const [pending, setPending] = useState(false)
  const key = useRef(newKey())
  const notice = useNotice()
  const undo = useUndo()
  const refresh = useRefreshAll()
  const save = async () => {
    setPending(true)
    const sent = key.current
    try {
      const outcome = await post({
        key: sent,
        path: lookPath(asked.pot_id),
        title: `${asked.code}: look`,
        body: bodyOf(draft),
      })
      if (outcome.state === "refused") {
        setProblem(outcome.problem)
        return
      }
      const sentPhoto =
        photo &&
        (await post({
          key: `${sent}-photo`,
          from: sent,
          path: PHOTOS_OF_LOOK,
          title: `${asked.code}: photo`,
          body: {},
          blob: photo,
        }))
      const refused =
        sentPhoto && sentPhoto.state === "refused"
          ? ` The photo was not: ${sentPhoto.problem.message}`
          : ""
      key.current = newKey()
      notice({
        text: `${asked.code}: look saved.${refused}`,
        undo: () =>
          void takeBack(sent).then((a) => {
            const look = a as Schemas["LookOut"] | null
            if (look) undo("look", look.id)
          }),
      })
      refresh()
      onDone()
    } finally {
      setPending(false)
    }
  }
  return { draft, setDraft, photo, setPhoto, problem, pending, save }
}
