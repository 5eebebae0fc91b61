import { useQuery } from "@tanstack/react-query"
import { loadKind } from "../../kinds/loadKind"
import { OwnFigures } from "../../kinds/OwnFigures"

/** Limits of this one plant; its kind keeps its own. */
export function OwnLimits({
  plant,
  onClose,
}: {
  plant: { id: number; profile_id: string }
  onClose: () => void
}) {
  const kind = useQuery({
    queryKey: ["kinds", plant.profile_id, plant.id],
    queryFn: () => loadKind(plant.profile_id, plant.id),
  }).data
  return kind ? <OwnFigures page={kind} plantId={plant.id} onClose={onClose} /> : null
}
