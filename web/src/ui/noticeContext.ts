import { createContext, use } from "react"

export type Notice = { text: string; undo?: () => void }
export const NoticeContext = createContext<(notice: Notice) => void>(() => undefined)

/** Says what was done, with a way to take it back. */
export const useNotice = () => use(NoticeContext)
