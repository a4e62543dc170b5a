/** The version of what is told between the floor, the server and who follows. */
export const NEWS_VERSION = 1
