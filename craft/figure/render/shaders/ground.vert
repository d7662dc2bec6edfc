#version 330
in vec3 place; in vec2 uv;
uniform mat4 to_clip;
out vec2 where;
void main() { where = uv; gl_Position = to_clip * vec4(place, 1.0); }
