#version 330
in vec3 place;
uniform mat4 to_light;
void main() { gl_Position = to_light * vec4(place, 1.0); }
