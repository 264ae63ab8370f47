import { inLanguage, type Language, type Values } from '@/core/languages'

/** The texts of what a customer is asked, by their keys. */
export const sayIn =
  (language: Language) =>
  (key: string, values?: Values): string =>
    inLanguage(language)(`ask.${key}`, values)
