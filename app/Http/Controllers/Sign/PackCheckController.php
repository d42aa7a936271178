<?php

declare(strict_types=1);

namespace App\Http\Controllers\Sign;

use App\Actions\Sign\ReceivePack;
use App\Actions\Sign\RotateSealKey;
use App\Adapters\Seal\SealKeys;
use App\Http\Controllers\Controller;
use App\Models\KeyRotation;
use App\Models\PackInspection;
use App\Models\SecondFactor;
use Illuminate\Database\Eloquent\ModelNotFoundException;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

/** Whether a pack is what it was: for whoever has one, and an account. */
final class PackCheckController extends Controller
{
    public function __construct(private readonly ReceivePack $receive, private readonly SealKeys $keys) {}

    /** The key of this installation, to be compared with what is printed. */
    public function key(Request $request): JsonResponse
    {
        $key = $this->keys->key();
        $person = $this->person($request);

        return response()->json([
            'fingerprint' => $key->fingerprint(),
            'pem' => $key->publicPem(),
            'mayRotate' => $person->is_administrator,
            'needsCode' => SecondFactor::of($person) !== null,
            'earlier' => array_values(
                KeyRotation::query()
                    ->with('user')
                    ->orderByDesc('id')
                    ->get()
                    ->map(static fn(KeyRotation $one): array => [
                        'fingerprint' => $one->from_fingerprint,
                        'until' => $one->created_at->toIso8601ZuluString(),
                        'by' => $one->user->name,
                        'reason' => $one->reason,
                        'handedOver' => $one->statement !== null,
                    ])
                    ->all(),
            ),
        ]);
    }

    /** Another key from now on. */
    public function rotate(Request $request, RotateSealKey $rotate): JsonResponse
    {
        $request->validate([
            'reason' => ['required', 'string', 'max:500'],
            'isCompromised' => ['required', 'boolean'],
            'password' => ['required', 'string', 'max:1000'],
            'code' => ['nullable', 'string', 'max:100'],
        ], ['reason.required' => 'Say why the key is changed.']);
        $rotate(
            $this->person($request),
            $request->string('reason')->trim()->toString(),
            $request->boolean('isCompromised'),
            $request->string('password')->toString(),
            $request->string('code')->trim()->toString(),
        );

        return $this->key($request)->setStatusCode(Response::HTTP_CREATED);
    }

    public function store(Request $request): JsonResponse
    {
        $request->validate([
            'fileName' => ['required', 'string', 'max:300'],
            'bytes' => ['required', 'integer', 'min:1', 'max:1000000000000'],
            'key' => ['nullable', 'string', 'regex:/^(?:\s*[0-9A-Fa-f]){64}\s*$/'],
        ], ['key.regex' => 'A fingerprint is 64 hexadecimal digits, such as stand in the report.']);
        $key = $request->string('key')->trim()->toString();
        $inspection = $this->receive->begin(
            $this->person($request)->id,
            $request->string('fileName')->toString(),
            $request->integer('bytes'),
            $key === '' ? null : $key,
        );

        return response()->json($this->shown($inspection), Response::HTTP_CREATED);
    }

    public function chunk(Request $request, PackInspection $inspection, int $offset): JsonResponse
    {
        return response()->json($this->shown(($this->receive)($this->own($request, $inspection), $offset, $request->getContent())));
    }

    public function show(Request $request, PackInspection $inspection): JsonResponse
    {
        return response()->json($this->shown($this->own($request, $inspection)));
    }

    private function own(Request $request, PackInspection $inspection): PackInspection
    {
        return $inspection->user_id === $this->person($request)->id ? $inspection : throw new ModelNotFoundException;
    }

    /** @return array<string, mixed> */
    private function shown(PackInspection $inspection): array
    {
        return [
            'id' => $inspection->id,
            'fileName' => $inspection->file_name,
            'bytes' => $inspection->bytes,
            'receivedBytes' => $inspection->received_bytes,
            'state' => $inspection->state,
            'found' => $inspection->found,
            // A key that nobody named may still be the one of this very installation.
            'isOwnKey' => $inspection->found !== null && $inspection->found['key'] === $this->keys->key()->fingerprint(),
        ];
    }
}
