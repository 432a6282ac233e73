#include "fonts/fonts.h"

// The assembler puts the files in as they are.
asm(".section .rodata\n"
    "sunbreak_font_regular: .incbin \"" FONT_FOLDER
    "/Regular.otf\"\n"
    "sunbreak_font_regular_end:\n"
    "sunbreak_font_bold: .incbin \"" FONT_FOLDER
    "/Bold.otf\"\n"
    "sunbreak_font_bold_end:\n"
    ".text\n");

extern "C" {
extern const unsigned char sunbreak_font_regular[], sunbreak_font_regular_end[], sunbreak_font_bold[],
    sunbreak_font_bold_end[];
}

namespace sunbreak::fonts {

std::span<const unsigned char> regular() { return {sunbreak_font_regular, sunbreak_font_regular_end}; }
std::span<const unsigned char> bold() { return {sunbreak_font_bold, sunbreak_font_bold_end}; }

}  // namespace sunbreak::fonts
