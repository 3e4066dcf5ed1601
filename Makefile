# Nuntius. `make demo` runs it with the demo data, `make test` checks everything; both set up what they need.
SHELL := bash
.SHELLFLAGS := -eu -o pipefail -c
.DEFAULT_GOAL := help
VENV := .venv
BIN := $(VENV)/bin
STATIC := src/nuntius/web/static/index.html
PAGES := $(shell find frontend/src frontend/public frontend/index.html frontend/vite.config.ts -type f)
# What records and recognises in real time runs by itself; all else side by side, a process for each of two processors.
LIVE := tests/browser/room
DEMO_DATA := $(CURDIR)/data/demo
MIRROR := mirror
# Where packages come from: the folder that `make mirror` filled, where there is one, and then no network is used.
WHEELS := $(if $(wildcard $(MIRROR)/wheels),--no-index --find-links $(MIRROR)/wheels)
NPM_CACHE := $(if $(wildcard $(MIRROR)/npm),--offline --cache ../$(MIRROR)/npm)

.PHONY: help demo test lint python-tests page-tests fuzz screenshots bench lock models context classifiers stating openapi mirror clean

help:
	@grep -E '^[a-z-]+:.*##' Makefile | sed -E 's/:[^#]*## /: /'

demo: $(VENV)/installed $(STATIC) .cache/printing .cache/speaking ## run Nuntius with the demo data
	NUNTIUS_DATA=$(DEMO_DATA) $(BIN)/nuntius demo

test: $(VENV)/tested $(STATIC) .cache/debian .cache/printing .cache/speaking lint page-tests python-tests ## check everything

lint: $(VENV)/tested frontend/node_modules/installed
	$(BIN)/ruff check .
	$(BIN)/ruff format --check .
	$(BIN)/mypy src tests scripts bench training
	cd frontend && npx --no-install tsc --noEmit && npm run --silent lint

page-tests: frontend/node_modules/installed
	cd frontend && npm run --silent test

python-tests: $(VENV)/tested $(STATIC) .cache/debian .cache/printing .cache/speaking
	$(BIN)/python -m pytest $(LIVE)
	$(BIN)/python -m pytest -n 2 --dist loadfile --ignore $(LIVE)

fuzz: $(VENV)/tested $(STATIC) ## send many requests made from the OpenAPI file (half an hour)
	NUNTIUS_FUZZ=300 $(BIN)/python -m pytest tests/web/test_fuzz.py

screenshots: $(VENV)/tested $(STATIC) .cache/debian ## take the pictures in docs/screenshots again
	$(BIN)/python scripts/screenshots.py

bench: $(VENV)/tested .cache/debian ## measure speed and memory
	$(BIN)/python bench/run.py

lock: ## make requirements*.txt from requirements*.in
	python3.11 -m venv .cache/lock
	.cache/lock/bin/pip install --quiet uv
	.cache/lock/bin/uv pip compile --quiet --generate-hashes --no-header --python-version 3.11 -o requirements.txt requirements.in
	.cache/lock/bin/uv pip compile --quiet --generate-hashes --no-header --python-version 3.11 -o requirements-dev.txt requirements-dev.in

models: ## derive the diarizer's models again from the package that carries them
	python3.11 -m venv .cache/models
	.cache/models/bin/pip install --quiet onnx==1.23.2 onnxruntime==1.32.0 moonshine-voice==0.1.0
	.cache/models/bin/python scripts/derive_models.py

context: ## make the networks of vectors and of talk in its context from training/ (four hours); then `make classifiers`
	python3.11 -m venv .cache/teaching
	.cache/teaching/bin/pip install --quiet --require-hashes -r requirements.txt
	.cache/teaching/bin/pip install --quiet --require-hashes --no-deps -r training/encoder.txt
	.cache/teaching/bin/pip install --quiet torch==2.13.0 transformers==5.24.0 onnx==1.23.2 scikit-learn==1.9.1
	PYTHONPATH=src .cache/teaching/bin/python training/vectors.py
	PYTHONPATH=src .cache/teaching/bin/python training/context.py

classifiers: $(VENV)/tested ## make the weights of the trained classifiers from training/
	$(BIN)/python training/train.py

stating: ## make the network that states decisions, after `make context` and `make classifiers` (fifteen minutes)
	PYTHONPATH=src:training .cache/teaching/bin/python training/stating.py

openapi: $(VENV)/installed frontend/node_modules/installed ## write the OpenAPI file and the types made from it
	$(BIN)/nuntius openapi frontend/src/api/openapi.json
	cd frontend && npm run --silent types

mirror: $(VENV)/installed ## write all pinned packages into mirror/, from which `make demo` then installs without any network
	$(BIN)/pip download --quiet --disable-pip-version-check --require-hashes -r requirements.txt -d $(MIRROR)/wheels
	cd frontend && npm ci --no-audit --no-fund --loglevel=error --cache ../$(MIRROR)/npm
	touch frontend/node_modules/installed

clean: ## remove what was built or fetched; keeps data/
	rm -rf $(VENV) frontend/node_modules src/nuntius/web/static .cache

$(VENV)/installed: requirements.txt pyproject.toml
	scripts/need.sh python3.11 python3.11 python3.11-venv
	test -x $(BIN)/python || python3.11 -m venv $(VENV)
	$(BIN)/pip install --quiet --disable-pip-version-check $(WHEELS) --require-hashes -r requirements.txt
	$(BIN)/pip install --quiet --disable-pip-version-check --no-deps --no-build-isolation -e .
	touch $@

$(VENV)/tested: $(VENV)/installed requirements-dev.txt
	$(BIN)/pip install --quiet --disable-pip-version-check --require-hashes -r requirements-dev.txt
	touch $@

frontend/node_modules/installed: frontend/package.json frontend/package-lock.json
	scripts/need.sh npm nodejs npm
	cd frontend && npm ci --no-audit --no-fund --loglevel=error $(NPM_CACHE)
	touch $@

$(STATIC): frontend/node_modules/installed $(PAGES)
	cd frontend && npm run --silent build
	touch $@

.cache/debian:
	scripts/need.sh chromium chromium
	scripts/need.sh redis-server redis-server
	scripts/need.sh /usr/share/pocketsphinx/test/data/librivox/transcription pocketsphinx-testdata
	mkdir -p .cache && touch $@

.cache/printing: scripts/need.sh # the text layout that PDF files are made with; all else works without
	mkdir -p .cache
	scripts/need.sh "$(or $(firstword $(wildcard /usr/lib/*/libpangoft2-1.0.so.0)),/usr/lib/libpangoft2-1.0.so.0)" libpango-1.0-0 libpangoft2-1.0-0 libharfbuzz-subset0 && touch $@ || true

.cache/speaking: scripts/need.sh # the voice that speaks the headings of compilations; without it a pause stands in their place
	mkdir -p .cache
	scripts/need.sh flite flite && touch $@ || true
