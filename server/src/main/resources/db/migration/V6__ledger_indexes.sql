-- Failed and stopped runs are few: found by their state first, whatever else is asked of them.
ALTER TABLE run ADD KEY run_state (state, finished_at);
-- What the ledger filters by stands in the index itself, so that a run is only fetched once it is known to be wanted.
ALTER TABLE run
  DROP KEY run_test, ADD KEY run_test (test_id, finished_at, configuration_id, person, state),
  DROP KEY run_configuration, ADD KEY run_configuration (configuration_id, finished_at, test_id, person, state);
