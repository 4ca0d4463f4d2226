import vue from '@vitejs/plugin-vue'
import { ElementPlusResolver } from 'unplugin-vue-components/resolvers'
import Components from 'unplugin-vue-components/vite'
import { defineConfig } from 'vite'

export default defineConfig({
  plugins: [
    vue(),
    // Only what is used of Element Plus comes along; in tests its styles stay out, which is five times as fast.
    Components({ resolvers: [ElementPlusResolver({ importStyle: process.env.VITEST ? false : 'css' })], dirs: [], dts: false }),
  ],
  build: { target: 'es2022', assetsInlineLimit: 0, reportCompressedSize: false },
  server: { proxy: { '/api': 'http://127.0.0.1:8000' } },
})
