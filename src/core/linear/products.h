#pragma once

#include <Eigen/Core>

namespace sunbreak {

/// Products of matrices by the kernels for the processor at hand: a library's templates, compiled for every processor,
/// take three times as long. No argument lies over what it is added to.

/// sum += alpha · a · b.
void add_product(double alpha, const Eigen::Ref<const Eigen::MatrixXd>& a, const Eigen::Ref<const Eigen::MatrixXd>& b,
                 Eigen::Ref<Eigen::MatrixXd> sum);
/// sum += a · aᵀ.
void add_square(const Eigen::Ref<const Eigen::MatrixXd>& a, Eigen::Ref<Eigen::MatrixXd> sum);

/// a · x.
Eigen::VectorXd times(const Eigen::Ref<const Eigen::MatrixXd>& a, const Eigen::Ref<const Eigen::VectorXd>& x);
/// aᵀ · x.
Eigen::VectorXd turned_times(const Eigen::Ref<const Eigen::MatrixXd>& a, const Eigen::Ref<const Eigen::VectorXd>& x);

}  // namespace sunbreak
