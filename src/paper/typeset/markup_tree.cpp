#include "paper/typeset/markup_tree.h"

#include <libxml/HTMLparser.h>

#include <memory>
#include <sstream>

namespace sunbreak::paper {
namespace {

std::string text_of(const xmlChar* text) { return text ? reinterpret_cast<const char*>(text) : std::string(); }

Element element_of(const xmlNode* node) {
  Element e;
  if (node->type == XML_TEXT_NODE || node->type == XML_CDATA_SECTION_NODE) {
    e.text = text_of(node->content);
    return e;
  }
  e.name = text_of(node->name);
  for (const xmlAttr* a = node->properties; a; a = a->next)
    e.attributes[text_of(a->name)] = a->children ? text_of(a->children->content) : std::string();
  for (const xmlNode* child = node->children; child; child = child->next)
    if (child->type == XML_ELEMENT_NODE || child->type == XML_TEXT_NODE) e.children.push_back(element_of(child));
  return e;
}

const xmlNode* find_body(const xmlNode* node) {
  for (; node; node = node->next) {
    if (node->type == XML_ELEMENT_NODE && text_of(node->name) == "body") return node;
    if (const xmlNode* found = find_body(node->children)) return found;
  }
  return nullptr;
}

}  // namespace

bool Element::has_class(std::string_view wanted) const {
  std::istringstream in(attribute("class"));
  for (std::string one; in >> one;)
    if (one == wanted) return true;
  return false;
}

std::string Element::attribute(const std::string& wanted) const {
  const auto found = attributes.find(wanted);
  return found == attributes.end() ? std::string() : found->second;
}

std::string Element::words() const {
  std::string all = text;
  for (const Element& child : children) all += child.words();
  return all;
}

Element markup_tree(const std::string& html) {
  const std::unique_ptr<xmlDoc, void (*)(xmlDoc*)> page(
      htmlReadMemory(html.data(), static_cast<int>(html.size()), nullptr, "UTF-8",
                     HTML_PARSE_RECOVER | HTML_PARSE_NOERROR | HTML_PARSE_NOWARNING | HTML_PARSE_NONET |
                         static_cast<int>(XML_PARSE_HUGE)),
      xmlFreeDoc);
  const xmlNode* body = page ? find_body(page->children) : nullptr;
  return body ? element_of(body) : Element{};
}

}  // namespace sunbreak::paper
