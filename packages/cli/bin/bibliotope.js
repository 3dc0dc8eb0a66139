#!/usr/bin/env node
import "../dist-run/bibliotope.js";
