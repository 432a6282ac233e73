#include "desktop/settle/settle_work.h"

#include <QMetaObject>
#include <algorithm>
#include <cmath>

namespace sunbreak::desktop {
namespace {

/// Over every height and setting of the field; nothing for shares, which take a count for each draw.
std::vector<float> chances_over(const SettleMaps& maps, const SettleRequest& request, const std::stop_token& stop) {
  std::vector<float> chances;
  if (request.rule.kind == ServingRule::Kind::Share) return chances;
  for (const auto& height : maps.heights)
    for (const SettleSetting& setting : maps.settings) {
      if (stop.stop_requested()) return {};
      chances.push_back(
          static_cast<float>(chance_of(request.rule, request.band, request.limits, maps.shared_sd, *height, setting)));
    }
  return chances;
}

bool same_area(const record::Settling& a, const record::Settling& b) {
  return a.area_left_m == b.area_left_m && a.area_front_m == b.area_front_m && a.area_width_m == b.area_width_m &&
         a.area_depth_m == b.area_depth_m;
}

}  // namespace

SettleWork::SettleWork(Desk& desk, QObject* parent) : QObject(parent), desk_(desk), making_(this), asking_(this) {
  const auto follow_in_sight = [this] {
    if (in_sight_) follow();
  };
  connect(&desk_, &Desk::changed, this, follow_in_sight);
  connect(&desk_.worked_out(), &WorkedOut::progressed, this, follow_in_sight);
}

void SettleWork::set_in_sight(bool in_sight) {
  in_sight_ = in_sight;
  desk_.worked_out().want_light(in_sight);
  if (in_sight) follow();
}

record::Settling SettleWork::settling() const {
  return desk_.test() ? evaluation::settling_of(*desk_.test()) : record::Settling{};
}

bool SettleWork::change(const std::function<void(record::Settling&)>& alter) {
  if (!desk_.test()) return false;
  record::Settling settling = this->settling();
  alter(settling);
  return desk_.edits().make(tr("how to run it"), [&](book::Edit& edit) {
    if (settling.id == 0)
      edit.add(settling);
    else
      edit.save(settling);
  });
}

void SettleWork::follow() {
  const evaluation::TestLight* light = desk_.test() ? this->light() : nullptr;
  if (!light) {
    making_.drop();
    asking_.drop();
    made_for_ = nullptr;
    evaluation_.reset();
    filling_ = false;
    maps_.reset();
    answers_.reset();
    point_.reset();
    problem_.reset();
    emit field_changed();
    emit moved();
    return;
  }
  if (const auto shown = desk_.shown(); shown != shown_) shown_ = shown, stood_ = false;
  const record::Settling settling = this->settling();
  SettleRequest request =
      evaluation::request_asked(settling, desk_.test()->test, *light, tried_ ? *tried_ : desk_.band().value_or(Band{}));
  request.told_in = desk_.units();
  const bool asked_anew = !(request == request_) || (!tried_ && maps_ && answers_ && !(answers_->request == request));
  request_ = request;
  // A sweep that is chosen on the mast is stood on.
  if (desk_.rung() && desk_.stop() && (desk_.rung()->id != rung_id_ || desk_.stop()->id != stop_id_)) {
    const bool chosen = rung_id_ != 0 && stood_;
    rung_id_ = desk_.rung()->id, stop_id_ = desk_.stop()->id;
    if (chosen || height_m_ == 0) height_m_ = desk_.rung()->height_m, percent_ = desk_.stop()->percent;
    if (chosen) look_again();
  }
  if (made_for_ != light || made_in_ != desk_.units() || !same_area(made_of_, settling)) {
    make_field();
  } else if (asked_anew && maps_) {
    look_again();
    emit field_changed();
    // While a band is dragged its answers would be overtaken at once.
    if (!tried_) ask();
  } else {
    emit field_changed();
  }
}

void SettleWork::try_band(const std::optional<Band>& band) {
  tried_ = band;
  follow();
}

void SettleWork::make_field() {
  const evaluation::TestLight* light = this->light();
  made_for_ = light;
  made_in_ = desk_.units();
  made_of_ = settling();
  evaluation_ = desk_.worked_out().evaluation();
  filling_ = true;
  problem_.reset();
  answers_.reset();
  asking_.drop();
  const int generation = ++generation_;
  struct Made {
    std::shared_ptr<const SettleMaps> maps;
    std::optional<Problem> problem;
  };
  making_.ask(
      [this, evaluation = evaluation_, light, settling = made_of_, units = made_in_, near_m = height_m_,
       generation](std::stop_token stop) {
        Made made;
        light->work_out_left_out(stop);
        if (stop.stop_requested()) return made;
        auto maps =
            evaluation::settle_maps(*light, evaluation::area_asked(settling, *light),
                                    evaluation::settle_heights(*light), near_m, stop, [&](const SettleMaps& so_far) {
                                      QMetaObject::invokeMethod(
                                          this,
                                          [this, generation, part = std::make_shared<const SettleMaps>(so_far)] {
                                            if (generation == generation_ && filling_) take_field(part, false);
                                          },
                                          Qt::QueuedConnection);
                                    });
        if (maps)
          made.maps = std::make_shared<const SettleMaps>(std::move(maps.value()));
        else
          made.problem = maps.problem();
        return made;
      },
      [this](Made made) {
        filling_ = false;
        problem_ = made.problem;
        if (made.problem) {
          maps_.reset();
          point_.reset();
          emit field_changed();
          emit moved();
        } else if (made.maps) {
          take_field(made.maps, true);
        }
      },
      [this] {
        filling_ = false;
        made_for_ = nullptr;
        problem_ = Problem{"the field of heights and settings was not finished", "the message below says why",
                           "what is shown of it is right; come back to this stage to try again"};
        emit field_changed();
      });
  if (!maps_) emit field_changed();
}

void SettleWork::take_field(std::shared_ptr<const SettleMaps> maps, bool all) {
  if (maps->heights.empty()) return;
  maps_ = std::move(maps);
  look_again();
  emit field_changed();
  if (all) ask();
}

void SettleWork::ask() {
  asking_.ask(
      [maps = maps_, request = request_](std::stop_token stop) {
        Answers answers{request, maps, settle(*maps, request, stop), {}, {}};
        if (answers.best.fewest_watts) {
          SettleRequest even = request;
          even.sure = 0.5;
          if (auto likely = fewest_watts(*maps, even, stop)) answers.likely = likely.value();
        }
        answers.chances = chances_over(*maps, request, stop);
        return std::make_shared<const Answers>(std::move(answers));
      },
      [this](const std::shared_ptr<const Answers>& answers) {
        if (!answers) return;
        answers_ = answers;
        // Whoever has not moved yet is shown the first answer there is.
        if (!stood_)
          for (const Result<SettlePoint>* best :
               {&answers_->best.fewest_watts, &answers_->best.widest, &answers_->best.most_even})
            if (!stood_ && *best) stand_on(best->value());
        if (!stood_ && answers_->best.instead) stand_on(answers_->best.instead->point);
        emit answered();
      });
}

void SettleWork::stand_at(double height_m, double percent) {
  stood_ = true;
  height_m_ = height_m, percent_ = percent;
  look_again();
}

void SettleWork::stand_on(const SettlePoint& point) { stand_at(point.height->height_m, point.setting.percent); }

void SettleWork::look_again() {
  if (!maps_ || maps_->heights.empty() || maps_->steps.empty()) {
    point_.reset();
  } else {
    const auto height = at_height(*maps_, height_m_).heights.front();
    const double percent = std::clamp(percent_, maps_->steps.front().percent, maps_->steps.back().percent);
    point_ = point_at(*maps_, request_, height, setting_at(*maps_, percent).value_or(maps_->steps.back()));
  }
  emit moved();
}

void SettleWork::step(int heights, int settings) {
  if (!maps_ || !point_) return;
  const auto& list = maps_->heights;
  const auto at =
      std::find_if(list.begin(), list.end(), [&](const auto& h) { return h->height_m == point_->height->height_m; });
  const auto height = std::clamp<std::ptrdiff_t>(at - list.begin() + heights, 0, std::ssize(list) - 1);
  double percent = point_->setting.percent;
  if (settings != 0) {
    // To the next of the field's settings that way.
    const auto& all = maps_->settings;
    auto next = std::min_element(all.begin(), all.end(),
                                 [&](const SettleSetting& a, const SettleSetting& b) {
                                   return std::abs(a.percent - percent) < std::abs(b.percent - percent);
                                 }) -
                all.begin();
    next = std::clamp<std::ptrdiff_t>(next + settings, 0, std::ssize(all) - 1);
    percent = all[static_cast<std::size_t>(next)].percent;
  }
  stand_at(list[static_cast<std::size_t>(height)]->height_m, percent);
}

}  // namespace sunbreak::desktop
