import { createSlice } from "@reduxjs/toolkit";
import { api } from "./api.ts";

/** The token of the session that changes must carry; empty without a session. */
const csrf = createSlice({
  name: "csrf",
  initialState: "",
  reducers: {},
  extraReducers: (build) =>
    build
      .addMatcher(api.endpoints.session.matchFulfilled, (_, { payload }) => payload.csrf)
      .addMatcher(api.endpoints.session.matchRejected, (state, { meta }) => (meta.condition ? state : "")),
});

export const csrfReducer = csrf.reducer;
