#pragma once
/// A script that edits, keeps copies and saves as the window does, until it is killed.

#include <string>

namespace vetchling::testing {

/// Number of the last edit that a design holds; -1: none.
int editOf(const std::string& notes);

/// Takes up what an earlier run left in the folder, then edits without end: a line "NUMBER MILLISECONDS" on stdout for each edit, by the
/// machine's steady clock. Returns at once where what was left cannot be opened.
int editUntilKilled(const std::string& folder, unsigned seed);

} // namespace vetchling::testing
