import * as pdfjs from 'pdfjs-dist'
import worker from 'pdfjs-dist/build/pdf.worker.min.mjs?url'

pdfjs.GlobalWorkerOptions.workerSrc = worker

/** The faces that a PDF may count on without bringing them. */
const faces = import.meta.glob<string>('../../../node_modules/pdfjs-dist/standard_fonts/*.{pfb,ttf}', {
  query: '?url',
  import: 'default',
  eager: true,
})

/** Reads what ships with the application, and nothing from elsewhere. */
class Shipped {
  async fetch({ filename }: { filename: string }): Promise<Uint8Array> {
    const address = Object.entries(faces).find(([path]) => path.endsWith(`/${filename}`))?.[1]
    if (!address) throw new Error(`${filename} does not ship with the application.`)
    return new Uint8Array(await (await fetch(address)).arrayBuffer())
  }
}

const LARGEST_PICTURE = 40_000_000
const WIDEST = 720

/** A PDF file that can be drawn page by page. */
export interface OpenPdf {
  pages: number
  /** Draws a page as wide as there is room. A page that is asked for meanwhile takes its place. */
  draw: (page: number, canvas: HTMLCanvasElement, room: number) => Promise<{ page: number; words: string }>
  close: () => Promise<void>
}

/** Opens a PDF file; of a long one only the parts that are drawn are fetched. */
export async function openPdf(address: string): Promise<OpenPdf> {
  const task = pdfjs.getDocument({
    url: address,
    disableAutoFetch: true,
    BinaryDataFactory: Shipped,
    useWorkerFetch: false,
    useWasm: false,
    // What is wrong with somebody's file is no fault of the page.
    verbosity: pdfjs.VerbosityLevel.ERRORS,
    enableXfa: false,
    isEvalSupported: false,
    maxImageSize: LARGEST_PICTURE,
  })
  const file = await task.promise
  let drawing: pdfjs.RenderTask | null = null
  return {
    pages: file.numPages,
    draw: async (number, canvas, room) => {
      drawing?.cancel()
      const page = await file.getPage(number)
      const width = Math.min(room || WIDEST, WIDEST)
      const scale = (width / page.getViewport({ scale: 1 }).width) * Math.min(window.devicePixelRatio || 1, 2)
      const viewport = page.getViewport({ scale })
      canvas.width = Math.floor(viewport.width)
      canvas.height = Math.floor(viewport.height)
      drawing = page.render({ canvas, viewport })
      await drawing.promise.catch((error: unknown) => {
        if (!(error instanceof pdfjs.RenderingCancelledException)) throw error
      })
      const text = await page.getTextContent()
      return { page: number, words: text.items.map((item) => ('str' in item ? item.str : '')).join(' ') }
    },
    close: () => task.destroy(),
  }
}
