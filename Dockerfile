# A shop as one container: docker build -t jaldi . && docker run -p 3000:3000 -v jaldi:/srv/jaldi/data -e ORIGIN=https://jaldi.example.test jaldi
FROM node:20-bookworm-slim AS built
WORKDIR /srv/jaldi
COPY package.json package-lock.json ./
RUN npm ci --no-audit --no-fund
COPY . .
RUN npm run build

FROM node:20-bookworm-slim
WORKDIR /srv/jaldi
ENV NODE_ENV=production
ENV HOST=0.0.0.0
COPY --from=built --chown=node:node /srv/jaldi /srv/jaldi
RUN mkdir -p data && chown node:node data
USER node
VOLUME /srv/jaldi/data
EXPOSE 3000
HEALTHCHECK --interval=30s --timeout=5s --start-period=20s CMD ["node", "-e", "fetch('http://127.0.0.1:3000/healthz').then(({ok}) => process.exit(ok ? 0 : 1), () => process.exit(1))"]
STOPSIGNAL SIGTERM
CMD ["node", "scripts/start.mjs"]
