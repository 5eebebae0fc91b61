import { unitName } from "../../ui/format"
import { Box, Button, Text } from "@chakra-ui/react"
import { useQuery } from "@tanstack/react-query"
import { Link } from "react-router"
import { Loaded, PageHead } from "../../ui/Page"
import { DeskRow } from "./DeskRow"
import { looksQuery } from "./queries"

const head = () => [
  "Plant",
  "Leaves",
  "New leaf",
  `Newest, ${unitName("mm")}`,
  "Growing",
  "Marks",
  "Note",
  "",
]

/** Twenty plants in a row at the desk: Tab through the fields, Enter saves a row and goes to the next. */
export function DeskScreen() {
  return (
    <Loaded query={useQuery(looksQuery)}>
      {(page) => (
        <>
          <PageHead
            title="Looks at the desk"
            line={`${page.looks.length} plants, longest unseen first. Enter saves a row and goes on.`}
          >
            <Button asChild variant="outline" minH="44px">
              <Link to="/leaf" data-back>
                Close
              </Link>
            </Button>
          </PageHead>
          <Box bg="bg.panel" borderWidth="1px" borderRadius="lg" overflowX="auto">
            <Box
              as="table"
              w="100%"
              minW="900px"
              aria-label="Looks"
              css={{
                "& th, & td": { px: "2", py: "1.5", textAlign: "left", verticalAlign: "top" },
              }}
            >
              <thead>
                <tr>
                  {head().map((h) =>
                    h ? (
                      <th scope="col" key={h}>
                        <Text as="span" fontSize="sm" color="fg.muted" fontWeight="medium">
                          {h}
                        </Text>
                      </th>
                    ) : (
                      <td key={h} /> // a column of buttons heads nothing
                    ),
                  )}
                </tr>
              </thead>
              <tbody>
                {page.looks.map((asked) => (
                  <DeskRow key={asked.pot_id} asked={asked} />
                ))}
              </tbody>
            </Box>
          </Box>
        </>
      )}
    </Loaded>
  )
}
