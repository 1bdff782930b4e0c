# Two commands: make demo, make test. Both install what is missing first.
SHELL := /bin/bash
.SHELLFLAGS := -eu -o pipefail -c
.DEFAULT_GOAL := build

GO_FILES := $(shell find cmd internal web/embed.go -name '*.go' -not -name '*_test.go' 2>/dev/null) \
	$(wildcard internal/shelf/*.pattern internal/shelf/addons/*.pattern internal/shelf/studies/*.pattern internal/sequence/lang/*.macros internal/store/migrations/*.sql) go.mod go.sum
WEB_FILES := $(shell find web/src web/public -type f -not -name schema.d.ts 2>/dev/null) \
	web/index.html web/vite.config.ts web/tsconfig.json web/package-lock.json
STATICCHECK := go tool -modfile=tools/go.mod staticcheck
NPM := npm --prefix web

.PHONY: attack beliefs build demo serve test check unit browser races race fuzz load bench words screenshots sentences third-party tools compiler chromium poppler clean

build: bin/tussock

bin/tussock: $(GO_FILES) web/dist/index.html
	go build -o $@ ./cmd/tussock

demo: tools bin/tussock
	exec bin/tussock demo $(ARGS)

serve: tools bin/tussock
	exec bin/tussock serve $(ARGS)

# The whole check: vet, lint, types, races, unit and browser tests. Ends with go test's
# own summary.
test: tools check races chromium poppler
	go test -count=1 -timeout 20m $$(go list ./... | grep -v /e2e)
	go test -count=1 -timeout 60m ./internal/e2e

check: web/dist/index.html
	test -z "$$(gofmt -l cmd internal web/embed.go)" || { gofmt -l cmd internal web/embed.go; echo "run gofmt -w on these"; exit 1; }
	go vet ./...
	$(STATICCHECK) ./...
	$(NPM) run --silent check
	$(NPM) run --silent lint

unit: poppler web/dist/index.html
	go test -timeout 20m $$(go list ./... | grep -v /e2e)

browser: tools chromium poppler web/dist/index.html
	go test -count=1 -timeout 60m ./internal/e2e

# Where several people or devices are served at once.
races: compiler web/dist/index.html
	go test -race -short -count=1 -timeout 20m ./internal/store ./internal/web/... ./internal/bench

race: compiler web/dist/index.html
	go test -race $$(go list ./... | grep -v /e2e)

# What goes wrong in a hall, for minutes: kills, damaged and foreign files, nonsense on
# every route, two hands. Prints what was tried, what survived, what was lost.
attack:
	TUSSOCK_ATTACK=1 go test -count=1 -timeout 20m -v ./internal/attack | grep -v '^=== '

# A full hall of thirty people for a minute, three times.
load:
	failed=0; for i in 1 2 3; do TUSSOCK_LOAD=1 go test -count=1 -timeout 5m -v -run TestFullHall ./internal/attack || failed=1; done; exit $$failed

fuzz:
	go test ./internal/sequence -run '^$$' -fuzz FuzzParse -fuzztime $${FUZZTIME:-60s} -fuzzminimizetime 1s
	go test ./internal/exchange -run '^$$' -fuzz FuzzReadFOLD -fuzztime $${FUZZTIME:-60s} -fuzzminimizetime 1s
	go test ./internal/exchange -run '^$$' -fuzz FuzzReadBundle -fuzztime $${FUZZTIME:-60s} -fuzzminimizetime 1s

bench: tools chromium poppler web/dist/index.html
	go test -run '^$$' -bench . -benchmem ./internal/...
	go test -count=1 -run 'TestSpeed' -v ./internal/e2e ./cmd/tussock | grep -E 'ms|kB|ok|FAIL'

# What the documents have from the program: words of the pattern language, constants.
words:
	for d in pattern-language:words models:models; do \
		f=docs/$${d%:*}.md; what=$${d#*:}; \
		sed "/<!-- $$what -->/q" $$f > $$f.new; \
		go run ./cmd/tussock $$what >> $$f.new; \
		mv $$f.new $$f; \
	done

# What is predicted of each toy, and how far fresh trials, searches and clinics bear it out:
# a table in docs/models.md.
beliefs:
	rm -f $(CURDIR)/.beliefs
	TUSSOCK_BELIEFS=$(CURDIR)/.beliefs go test -count=1 -p 1 -run 'TestTableOfBeliefs|TestClinicFindsTheFault|TestHopperClinicFindsTheFault' ./internal/tune ./internal/motion/glide ./internal/motion/hop
	sed -i -e '/<!-- beliefs -->/,/<!-- .beliefs -->/{//!d}' -e '/<!-- beliefs -->/r .beliefs' docs/models.md
	rm -f $(CURDIR)/.beliefs

# What others have made and Tussock ships, with licences: docs/third-party.md.
third-party:
	go run ./internal/thirdparty . > docs/third-party.md.new
	mv docs/third-party.md.new docs/third-party.md

# Every visible sentence of the demo's screens, to be read: sentences.txt.
sentences: tools chromium web/dist/index.html
	TUSSOCK_SENTENCES=$(CURDIR)/sentences.txt go test -count=1 -run TestEverySentence ./internal/e2e

screenshots: tools chromium web/dist/index.html
	TUSSOCK_SCREENSHOTS=$(CURDIR)/docs/screenshots go test -count=1 -run TestScreenshots ./internal/e2e

# The front end: packages, the API's types from the Go program, the built page.
web/node_modules/.stamp: web/package-lock.json web/.npmrc
	@echo "About to install the npm packages of web/package-lock.json into web/node_modules, to build the page"
	$(NPM) ci --no-progress
	touch $@

# openapi.yaml changes only when its contents do, so that a Go edit that leaves
# the API alone does not rebuild the page; the stamp keeps make from asking again.
.stamp-openapi: $(GO_FILES)
	go run ./cmd/tussock openapi > openapi.yaml.new
	if cmp -s openapi.yaml.new openapi.yaml; then rm openapi.yaml.new; else mv openapi.yaml.new openapi.yaml; fi
	touch $@

openapi.yaml: .stamp-openapi ;

web/src/api/schema.d.ts: openapi.yaml web/node_modules/.stamp
	$(NPM) run --silent types

web/dist/index.html: web/node_modules/.stamp web/src/api/schema.d.ts $(WEB_FILES)
	$(NPM) run --silent build

# What a fresh machine may lack. Each says what it is about to install, and what for.
APT := DEBIAN_FRONTEND=noninteractive apt-get -o DPkg::Lock::Timeout=300
# install COMMANDS, PACKAGES, WHAT FOR
define install
	@for c in $(1); do command -v $$c >/dev/null && exit 0; done; \
	echo "About to install the system packages $(2), $(3)"; \
	$(APT) update -qq; \
	$(APT) install -y -qq --no-install-recommends $(2) >/dev/null
endef

tools:
	@command -v go >/dev/null || { echo "Tussock needs Go 1.26 or newer: install it from your system's packages."; exit 1; }
	$(call install,npm,nodejs npm,to build the page)

# The race detector needs a C compiler.
compiler:
	$(call install,gcc,gcc libc6-dev,for the race detector)

chromium:
	$(call install,chromium chromium-browser,chromium,for the browser tests)

# Prints are rendered and measured.
poppler:
	$(call install,pdftoppm,poppler-utils,to measure prints in tests)

clean:
	rm -rf bin openapi.yaml .stamp-openapi web/node_modules web/src/api/schema.d.ts
	find web/dist -mindepth 1 -not -name .gitkeep -delete
