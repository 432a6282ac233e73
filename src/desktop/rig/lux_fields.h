#pragma once

namespace sunbreak::desktop {

class Desk;
class Form;

/// What a test needs that is walked by a lux meter: the class of its light, and the factor that makes PPFD of lux. A
/// factor that was found under another light is refused there, with the reason.
void add_lux_fields(Form& form, Desk& desk);

}  // namespace sunbreak::desktop
