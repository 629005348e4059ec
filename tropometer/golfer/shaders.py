"""GLSL of the range, the golfer and the things on the mat."""

NOISE = """
float hash(vec2 p){p=fract(p*vec2(123.34,456.21));p+=dot(p,p+45.32);return fract(p.x*p.y);}
float vn(vec2 p){vec2 i=floor(p),f=fract(p);f=f*f*(3.-2.*f);return mix(mix(hash(i),hash(i+vec2(1,0)),f.x),mix(hash(i+vec2(0,1)),hash(i+vec2(1,1)),f.x),f.y);}
float fbm(vec2 p){float a=.5,s=0.;for(int i=0;i<5;i++){s+=a*vn(p);p=p*2.03+7.1;a*=.5;}return s;}
"""
SH = """
uniform sampler2DShadow shm; uniform mat4 LVP;
float shadow(vec3 w, float bias, float rad){ vec4 q=LVP*vec4(w,1.); vec3 c=q.xyz*.5+.5; if(any(lessThan(c.xy,vec2(0.)))||any(greaterThan(c.xy,vec2(1.)))) return 1.;
 float s=0.; for(int i=0;i<4;i++) s+=texture(shm,vec3(c.xy+(vec2(i&1,i>>1)-.5)*1.5*rad,c.z-bias)); return s/4.; }
"""
CHV = """#version 330
in vec3 pos; in vec3 nrm; in vec3 rpos; in vec3 ext;
uniform mat4 VP; uniform float mir;
out vec3 wp; out vec3 wn; out vec3 rp; flat out int mat; out float cut; out float uu;
void main(){ wn=nrm; wp=pos; wp.x*=mir; wn.x*=mir; rp=rpos; mat=int(ext.x+.5); cut=ext.y; uu=ext.z; gl_Position=VP*vec4(wp,1.);}"""
CHF = (
    """#version 330
in vec3 wp; in vec3 wn; in vec3 rp; flat in int mat; in float cut; in float uu; out vec4 o;
uniform vec3 eye; uniform vec3 sun; uniform vec3 C[10]; uniform vec3 eyeP; uniform float sc; uniform float ffsign; uniform sampler2D nzt;
float fbm(vec2 p){return texture(nzt,p/16.).r;}
"""
    + SH
    + """
void main(){ if(cut>0.) discard; vec3 N=normalize(wn); vec3 V=normalize(eye-wp); bool back=(gl_FrontFacing? 1.:-1.)*ffsign<0.; if(back) N=-N;
 vec3 a=C[mat]; float spec=.04, gl=12., wrap=.15;
 vec3 q=(rp-eyeP)/sc; vec2 k1=rp.xy*(mat==0?30.:200.), k2=mat==2?vec2(rp.x*14.,rp.y*6.)+3.:rp.xy*vec2(9.,5.)+wp.xy*2.; if(mat==5) k1=rp.xz*160.+rp.y*30.; float n1=textureLod(nzt,k1/16.,0.).r, n2=textureLod(nzt,k2/16.,0.).r;
 if(mat==0){ wrap=.3; spec=.10; gl=18.;
   float ax=abs(q.x);
   // brows, lips, stubble/cheek tint
   float br=smoothstep(.006,.003,abs(q.y-.021-(.028-ax)*.10))*smoothstep(.052,.046,ax)*smoothstep(.010,.014,ax)*step(-.02,q.z); a=mix(a,C[5]*.9,br*.8);
   float lip=smoothstep(.009,.005,abs(q.y+.0725))*smoothstep(.026,.018,ax)*step(-.005,q.z); a=mix(a,a*vec3(.82,.58,.56),lip);
   float eyeS=smoothstep(.022,.012,length(vec2((ax-.031)*.8,q.y*1.5)))*step(-.03,q.z); a*=1.-.22*eyeS;
   a*=mix(vec3(1.),vec3(1.05,.90,.88),.5*n1); }
 else if(mat==1){ a*=.96+.07*n1; wrap=.22; float w=n2; N=normalize(N+ (w-.5)*vec3(.25,.25,.1));
   if(uu>.60&&uu<.67) a*=.85; 
   if(abs(rp.x)<.012*sc && rp.z>.05*sc && rp.y>1.33*sc) a*=.9; }
 else if(mat==2){ wrap=.2; a*=.95+.08*n1; float w=n2; N=normalize(N+(w-.5)*vec3(.35,.2,.15));
   if(uu>.0) {a=C[9]; spec=.2; gl=30.; if(abs(rp.x)<.022*sc&&rp.z>0.) {a=vec3(.72,.72,.70);spec=.6;}} }
 else if(mat==3){ spec=.22; gl=30.; if(rp.z>.035*sc&&rp.z<.14*sc&&rp.y>.045*sc){ float l=abs(fract(rp.z/sc*62.)-.5); if(l<.22) a=mix(a,C[4],.75);} if(rp.z<-.025*sc&&rp.y>.02*sc&&rp.y<.055*sc) a=mix(a,C[7],.8); }
 else if(mat==4){ spec=.08; }
 else if(mat==5){ a*=.8+.5*n1; spec=.15; gl=25.; }
 else if(mat==6){ vec3 e=q; e.x=abs(e.x)-.031; float d=length(e.xy); a=mix(vec3(.9),vec3(.25,.17,.10),smoothstep(.0068,.0058,d)); a=mix(a,vec3(.02),smoothstep(.0034,.0026,d)); spec=.5; gl=80.; }
 if(back) a*=.45;
 float sh=shadow(wp+N*.012,.0006,.0011);
 float nl=dot(N,sun); float dif=max((nl+wrap)/(1.+wrap),0.)*mix(1.,sh,smoothstep(-.1,.2,nl+.1));
 vec3 H=normalize(V+sun); float sp=spec*pow(max(dot(N,H),0.),gl)*sh;
 vec3 amb=mix(vec3(.20,.23,.14),vec3(.46,.54,.66),N.y*.5+.5); float fr=pow(1.-max(dot(N,V),0.),3.);
 float ao=mix(.62,1.,smoothstep(0.,.35,wp.y)); 
 vec3 c=a*(amb*ao*.86+vec3(1.32,1.20,1.02)*dif)+sp+fr*.06*amb;
 c=c/(1.+c*.22); o=vec4(pow(c,vec3(1./2.2)),1.); }"""
)
# simple lit mesh (club, ball, stick, posts)
OBV = """#version 330
in vec3 pos; in vec3 nrm; in vec3 col; uniform mat4 VP; uniform mat4 M; out vec3 wp; out vec3 wn; out vec3 cl; void main(){ vec4 p=M*vec4(pos,1.); wp=p.xyz; wn=mat3(M)*nrm; cl=col; gl_Position=VP*p; }"""
OBF = (
    """#version 330
in vec3 wp; in vec3 wn; in vec3 cl; out vec4 o; uniform vec3 eye; uniform vec3 sun; uniform float spec; uniform float alpha;
"""
    + SH
    + """void main(){ vec3 N=normalize(wn),V=normalize(eye-wp); if(dot(N,V)<0.) N=-N; float sh=shadow(wp+N*.004,.0006,.0011); vec3 H=normalize(V+sun);
 vec3 amb=mix(vec3(.20,.23,.14),vec3(.46,.54,.66),N.y*.5+.5); vec3 c=cl*(amb*.9+vec3(1.32,1.2,1.02)*max(dot(N,sun),0.)*sh)+spec*pow(max(dot(N,H),0.),24.)*sh; c=c/(1.+c*.22); o=vec4(pow(c,vec3(1./2.2)),alpha); }"""
)
BGV = """#version 330
in vec2 p; out vec2 uv; void main(){ uv=p; gl_Position=vec4(p,.9999,1.);}"""
# background: ray-cast sky, hills/trees, grass, mat
BGF = (
    """#version 330
in vec2 uv; out vec4 o; uniform mat4 IVP; uniform mat4 VP; uniform vec3 eye; uniform vec3 sun; uniform vec4 matR; uniform vec2 res; uniform int ss; uniform int indoors;
"""
    + NOISE
    + """
vec3 ground(vec3 w,float d){ float lod=clamp(1.-d/14.,0.,1.); vec2 g=w.xz; float n=fbm(g*1.3), n2=fbm(g*22.), bl=fbm(vec2(g.x*90.,g.y*60.));
 vec3 c=mix(vec3(.10,.24,.045),vec3(.19,.36,.075),n); c*=.78+.40*n2; c*=1.+lod*(bl-.5)*1.0; c=mix(c,vec3(.17,.33,.08),smoothstep(14.,60.,d)*.7);
 float st=smoothstep(-.1,.1,sin(g.x*.55)); c*=mix(1.,.90+.13*st,smoothstep(3.,8.,length(g))); 
 vec2 mc=abs(g-matR.xy)-matR.zw; float md=max(mc.x,mc.y);
 if(md<.05){ if(md>0.) c=vec3(.055); else { float t=hash(floor(g*420.)); c=vec3(.055,.20,.075)*(.72+.5*t)*(.85+.3*fbm(g*9.)); 
   vec2 pd=abs(g-vec2(matR.x+.0,matR.y+matR.w*.52)); 
   if(abs(md+.06)<.006) c=mix(c,vec3(.7),.6); } }
 else c*=mix(.55,1.,smoothstep(.05,.14,md));
 return c; }
// a boathouse: planks, a floor of concrete, things along the walls, and a net toward the target
const vec3 LOW=vec3(-5.6,0.,-3.1), HIGH=vec3(5.6,2.9,5.7); const float NET=2.7;
vec3 stored(vec2 p){ vec2 cell=floor(p*vec2(1.35,1.9)), at=fract(p*vec2(1.35,1.9)); float h=hash(cell+7.), k=hash(cell+31.);
 vec2 room=vec2(.12+.25*h,.10+.3*k); bool thing=h>.35&&p.y<2.1&&at.x>room.x*.5&&at.x<1.-room.x*.5&&at.y<1.-room.y; 
 vec3 plank=mix(vec3(.20,.14,.09),vec3(.32,.24,.16),fbm(vec2(p.y*2.,floor(p.x*6.)*3.)))*(.75+.25*smoothstep(.02,.06,abs(fract(p.x*6.)-.5)*.6));
 return thing?mix(vec3(.10,.14,.17),vec3(.55,.42,.30),hash(cell+53.))*(.7+.3*at.y):plank; }
vec3 inside(vec3 d){ vec3 far=(mix(LOW,HIGH,step(0.,d))-eye)/d; float t=min(far.x,min(far.y,far.z)); vec3 w=eye+d*t; vec3 c;
 if(t==far.y) c=d.y<0.?ground(w,t):vec3(.42,.40,.36)*(1.+2.2*smoothstep(.12,.06,abs(fract(w.z*.4)-.5)));
 else c=t==far.x?stored(w.zy):stored(w.xy);
 if(t==far.y&&d.y<0.){ vec2 mc=abs(w.xz-matR.xy)-matR.zw; if(max(mc.x,mc.y)>.05) c=vec3(.20,.20,.19)*(.8+.3*fbm(w.xz*5.)); }
 c*=vec3(.95,.90,.80)*(d.y<0.&&t==far.y?1.25:.75);
 float n=(NET-eye.x)/d.x; if(n>0.&&n<t){ vec3 q=eye+d*n; vec2 g=abs(fract(q.zy*14.)-.5); c=mix(c,vec3(.75),.45*smoothstep(.42,.48,max(g.x,g.y))); }
 return c; }
void main(){ vec3 acc=vec3(0.); vec3 w0=vec3(0.); float dep=1.;
 for(int k=0;k<ss*ss;k++){ vec2 j=(vec2(k%ss,k/ss)+.5)/float(ss)-.5; vec2 q=uv+j*2./res; vec4 f4=IVP*vec4(q,1.,1.); vec3 d=normalize(f4.xyz/f4.w-eye); vec3 c;
  float az=atan(d.x,d.z); float el=d.y/length(d.xz);
  float tree=.045+.030*fbm(vec2(az*9.,1.))+.020*fbm(vec2(az*60.,3.))+.010*fbm(vec2(az*260.,5.)); float hill=.058+.05*fbm(vec2(az*2.1+4.,9.));
  if(indoors==1) c=inside(d);
  else if(d.y<-.0005 && eye.y/-d.y<400.){ float t=eye.y/-d.y; vec3 w=eye+d*t; c=ground(w,t)*(vec3(.46,.54,.66)*.8+vec3(1.32,1.2,1.02)*sun.y); c=mix(c,vec3(.52,.60,.62),1.-exp(-t*.0045)); }
  else if(el<tree){ float sh=fbm(vec2(az*150.,el*400.)); c=mix(vec3(.035,.085,.03),vec3(.11,.20,.06),sh*smoothstep(-.01,tree,el)*1.4); c=mix(c,vec3(.42,.50,.52),.18); }
  else if(el<hill) c=mix(vec3(.23,.33,.27),vec3(.36,.45,.45),smoothstep(.02,hill,el));
  else { c=mix(vec3(.72,.82,.92),vec3(.22,.44,.78),pow(clamp(d.y*1.7,0.,1.),.65)); vec2 cp=d.xz/max(d.y,.03); float cl=smoothstep(.48,.80,fbm(cp*.55+vec2(3.,1.)))*smoothstep(.02,.16,d.y); c=mix(c,vec3(.97),cl*.75); c*=1.15; }
  c=c/(1.+c*.22); acc+=pow(c,vec3(1./2.2)); }
 o=vec4(acc/float(ss*ss),1.); }"""
)
CATV = """#version 330
in vec2 p; uniform mat4 VP; uniform vec4 rect; out vec3 wp; void main(){ wp=vec3(rect.x+p.x*rect.z,0.004,rect.y+p.y*rect.w); gl_Position=VP*vec4(wp,1.);}"""
CATF = (
    """#version 330
in vec3 wp; out vec4 o; uniform vec3 feet[2];
"""
    + SH
    + """void main(){ float s=1.-shadow(wp,.0003,.0016); float ao=0.; for(int i=0;i<2;i++){ vec2 d=(wp-feet[i]).xz; ao+=.45*exp(-dot(d,d)/.010);} float a=max(s*.60,min(ao,.5)); o=vec4(.01,.03,.03,a);}"""
)
SHADOW_SKIN_VERTEX = """#version 330
in vec3 pos; in vec3 ext; uniform mat4 VP; uniform float mir; out float cut;
void main(){ cut=ext.y; gl_Position=VP*vec4(pos.x*mir,pos.yz,1.); }"""
SHADOW_SKIN_FRAGMENT = """#version 330
in float cut; void main(){ if(cut>0.) discard; }"""
SHADOW_ONLY = """#version 330
void main(){}"""
BLIT_VERTEX = """#version 330
in vec2 p; out vec2 t; void main(){ t=p*.5+.5; gl_Position=vec4(p,.9999,1.); }"""
BLIT_FRAGMENT = """#version 330
in vec2 t; out vec4 o; uniform sampler2D x; void main(){ o=texture(x,t); }"""
