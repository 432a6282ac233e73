#include <fmt/format.h>
#include <map>
#include "audit/simulated_audit.h"
#include "evaluation/crop_targets.h"
#include "evaluation/test_light.h"
using namespace sunbreak; using namespace sunbreak::trial;
int main(){
  std::map<std::string,int> reasons; int mt[2][2]={{0,0},{0,0}};
  evaluation::AuditContext context; context.targets = evaluation::shipped_targets();
  for(int n=0;n<120;++n){
    AuditBench b=audit_bench(1,n);
    auto planted=plant_claims(b,1,n);
    for(auto&c:planted) b.record.claims.push_back(c.claim);
    auto e=evaluation::evaluate(b.record);
    const auto&f=e->light()->found();
    std::string why=f.fits?"fits":f.reason.substr(0,60);
    for(char&c:why) if(c>='0'&&c<='9') c='#';
    ++reasons[b.fixture+" / "+b.bench+fmt::format(" {} ",b.heights_m.size())+why];
    auto a=evaluation::audit(*e,context);
    for(size_t i=0;i<planted.size();++i) if(planted[i].claim.kind=="map"){
      auto&m=a.claims[i];
      double z=(m.measured-planted[i].truth)/m.expanded;
      bool out=std::abs(z)>1;
      ++mt[f.fits][out];
      if(out) fmt::print("{} {} {} fits {} truth {:.1f} measured {:.1f} ± {:.1f} at {:.2f} heights {} reason {}\n",n,b.fixture,b.bench,f.fits,planted[i].truth,m.measured,m.expanded,*planted[i].claim.height_m,b.heights_m.size(),f.fits?"":f.reason);
    }
  }
  for(auto&[r,c]:reasons) fmt::print("{:4} {}\n",c,r);
  fmt::print("cubic in {} out {}; model in {} out {}\n",mt[0][0],mt[0][1],mt[1][0],mt[1][1]);
}
