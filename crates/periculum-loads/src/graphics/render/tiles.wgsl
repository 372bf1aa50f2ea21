// A digest of each tile of 32 × 32 pixels of a picture, and of the traces of all that was drawn there.

const TILE = 32u;

@group(0) @binding(0) var picture: texture_2d<u32>;
@group(0) @binding(1) var<storage, read_write> digests: array<vec2<u32>>;
@group(0) @binding(2) var<uniform> order: vec4<u32>;
@group(0) @binding(3) var<storage, read> traces: array<u32>;

var<workgroup> sums: array<atomic<u32>, 2>;

@compute @workgroup_size(256)
fn digest_tiles(@builtin(workgroup_id) tile: vec3<u32>, @builtin(local_invocation_index) lane: u32,
                @builtin(num_workgroups) tiles: vec3<u32>) {
    let width = textureDimensions(picture).x;
    var low = 0u;
    var high = 0u;
    for (var i = lane; i < TILE * TILE; i += 256u) {
        let at = vec2<u32>(tile.x * TILE + i % TILE, tile.y * TILE + i / TILE);
        let pixel = textureLoad(picture, at, 0).x;
        let place = at.y * 65536u + at.x;
        let trace = traces[at.y * width + at.x];
        // Steps that can be undone, so that one pixel that differs changes the first sum for certain.
        let word = mix((pixel ^ (trace * 0x9e3779b1u)) + place * 0x85ebca6bu);
        low += word;
        high += (word ^ (word >> 15u)) * 0x2c1b3c6du;
    }
    atomicAdd(&sums[0], low);
    atomicAdd(&sums[1], high);
    workgroupBarrier();
    if (lane == 0u) {
        digests[order.x + tile.y * tiles.x + tile.x] = vec2<u32>(atomicLoad(&sums[0]), atomicLoad(&sums[1]));
    }
}
