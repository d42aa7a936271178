<?php

declare(strict_types=1);

namespace App\Http\Controllers\Sign;

use App\Actions\Access\Trail;
use App\Adapters\Seal\SealKeys;
use App\Adapters\Storage\BlobStore;
use App\Http\Controllers\Controller;
use App\Jobs\BuildPack;
use App\Models\Pack;
use App\Models\PackOrder;
use App\Models\Tally;
use App\Models\TrailAct;
use App\Policies\Act;
use Illuminate\Database\Eloquent\ModelNotFoundException;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Symfony\Component\HttpFoundation\BinaryFileResponse;
use Symfony\Component\HttpKernel\Exception\GoneHttpException;

/** Evidence packs of a tally: ordered, and taken away in ranges. */
final class PackController extends Controller
{
    public function index(Request $request, Tally $tally, SealKeys $keys, BlobStore $blobs): JsonResponse
    {
        $packs = Pack::query()->where('tally_id', $tally->id)->with(['user', 'seal'])->orderByDesc('number')->get();

        return response()->json([
            'fingerprint' => $keys->key()->fingerprint(),
            'mayTakeClear' => $this->person($request)->can('act', [$tally->dataset->migration, Act::TakeClear]) &&
                ! $tally->purged()->exists(),
            'items' => array_values($packs->map(static fn(Pack $pack): array => [
                'id' => $pack->id,
                'number' => $pack->number,
                'bytes' => $pack->bytes,
                'digest' => $pack->digest,
                'isKept' => $blobs->has($pack->digest),
                'seal' => $pack->seal->digest,
                'key' => $pack->seal->key_fingerprint,
                'hasClearValues' => $pack->has_clear_values,
                'by' => $pack->user->name,
                'at' => $pack->created_at->toIso8601ZuluString(),
            ])->all()),
        ]);
    }

    public function order(Request $request, Tally $tally): JsonResponse
    {
        return $this->ordered($request, $tally, false);
    }

    /** With deliveries and clear values: on record, for it leaves the house. */
    public function orderClear(Request $request, Tally $tally, Trail $trail): JsonResponse
    {
        $tally->mustHaveContent();

        return DB::transaction(function () use ($request, $tally, $trail): JsonResponse {
            $about = "evidence with clear values: {$tally->dataset->name}, tally {$tally->number}";
            $trail->note(TrailAct::TookAway, $this->person($request), $about, $tally->dataset->migration);

            return $this->ordered($request, $tally, true);
        });
    }

    public function show(Request $request, PackOrder $packOrder): JsonResponse
    {
        if ($packOrder->user_id !== $this->person($request)->id) {
            throw new ModelNotFoundException;
        }

        return response()->json($this->orderView($packOrder));
    }

    public function download(Request $request, Pack $pack, BlobStore $blobs): BinaryFileResponse
    {
        if ($pack->has_clear_values && $this->person($request)->cannot('act', [$pack->tally->dataset->migration, Act::TakeClear])) {
            abort(Response::HTTP_FORBIDDEN);
        }

        self::mustBeKept($pack, $blobs);

        return response()->download(
            $blobs->path($pack->digest),
            Str::slug($pack->tally->dataset->name)."-tally-{$pack->tally->number}-evidence-{$pack->number}.zip",
            ['Content-Type' => 'application/zip'],
        );
    }

    private static function mustBeKept(Pack $pack, BlobStore $blobs): void
    {
        if (! $blobs->has($pack->digest)) {
            $pack->tally->mustHaveContent();
            throw new GoneHttpException(
                'This pack is no longer kept: the migration says for how long packs are. Its digest and its seal stay; make a new one.',
            );
        }
    }

    private function ordered(Request $request, Tally $tally, bool $hasClearValues): JsonResponse
    {
        $order = PackOrder::query()->create([
            'tally_id' => $tally->id,
            'has_clear_values' => $hasClearValues,
            'state' => 'queued',
            'user_id' => $this->person($request)->id,
        ]);
        BuildPack::dispatch($order->id)->afterCommit();

        return response()->json($this->orderView($order->refresh()), Response::HTTP_ACCEPTED);
    }

    /** @return array{id: int, state: string, problem: string|null, packId: int|null} */
    private function orderView(PackOrder $order): array
    {
        return ['id' => $order->id, 'state' => $order->state, 'problem' => $order->problem, 'packId' => $order->pack_id];
    }
}
