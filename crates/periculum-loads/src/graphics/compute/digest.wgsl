// A digest of each tile of 64 × 64 numbers of a product.

@group(0) @binding(0) var<storage, read> c: array<u32>;
@group(0) @binding(1) var<storage, read_write> digests: array<vec2<u32>>;
@group(0) @binding(2) var<uniform> order: vec4<u32>;

var<workgroup> sums: array<atomic<u32>, 2>;

@compute @workgroup_size(256)
fn digest(@builtin(workgroup_id) group: vec3<u32>, @builtin(local_invocation_index) lane: u32,
          @builtin(num_workgroups) groups: vec3<u32>) {
    let n = order.x;
    var low = 0u;
    var high = 0u;
    for (var i = lane; i < 4096u; i += 256u) {
        let at = (group.y * 64u + i / 64u) * n + group.x * 64u + i % 64u;
        let place = mix(at);
        low += mix(c[at] ^ place);
        high += mix(c[at] + place);
    }
    atomicAdd(&sums[0], low);
    atomicAdd(&sums[1], high);
    workgroupBarrier();
    if (lane == 0u) {
        digests[order.y + group.y * groups.x + group.x] = vec2<u32>(atomicLoad(&sums[0]), atomicLoad(&sums[1]));
    }
}
