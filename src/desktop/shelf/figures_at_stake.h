#pragma once

#include <QString>
#include <functional>

namespace sunbreak::desktop {

class Desk;

/// What figures rest on is never changed under them without a word. Tries the change, and where it would change the
/// figures of sweeps that are read, shows each before and after and asks; where it would not, or nothing is read yet,
/// or this is a trial itself, there is nothing to ask. `why` says what the change means. True where it may be made.
bool agreed_for_figures(Desk& desk, const QString& why, const std::function<QString()>& change);

}  // namespace sunbreak::desktop
