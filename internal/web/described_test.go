package web

import (
	"testing"

	"github.com/gin-gonic/gin"
)

// What is described is there.
func TestDescribedFieldsAreThere(t *testing.T) {
	gin.SetMode(gin.ReleaseMode)
	all, err := newAreas(nil, nil)
	if err != nil {
		t.Fatal(err)
	}
	if lost := describe(all.register(gin.New())); len(lost) > 0 {
		t.Errorf("nothing in the API is called %v", lost)
	}
}
