// What tests/properties.cmake is there to find.
TEST(Dropped, NobodyLooks) {
  rc::check("anything", [] { RC_ASSERT(false); });
}
