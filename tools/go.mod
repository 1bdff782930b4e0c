module tussock/tools

go 1.26.0

tool honnef.co/go/tools/cmd/staticcheck

require honnef.co/go/tools v0.8.2 // indirect
