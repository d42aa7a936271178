<?php

declare(strict_types=1);

namespace App\Http\Controllers\Notices;

use App\Actions\Access\Trail;
use App\Adapters\Sources\OuterGate;
use App\Http\Controllers\Controller;
use App\Models\Migration;
use App\Models\NoticeKind;
use App\Models\TrailAct;
use App\Models\Webhook;
use App\Models\WebhookAttempt;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Validation\Rule;

/** Programs that are told of notices, as an administrator keeps them. */
final class WebhookController extends Controller
{
    private const SECRET_BYTES = 32;

    private const TOLD = 10;

    public function index(): JsonResponse
    {
        return response()->json([
            'kinds' => array_map(
                static fn(NoticeKind $kind): array => ['kind' => $kind->value, 'words' => $kind->words()],
                NoticeKind::cases(),
            ),
            'items' => Webhook::query()->orderBy('id')->get()->map(self::told(...))->all(),
        ]);
    }

    /** The secret is told here, once. */
    public function store(Request $request, Migration $migration, OuterGate $gate, Trail $trail): JsonResponse
    {
        /** @var array{url: string, kinds: list<string>} $asked */
        $asked = $request->validate([
            'url' => ['required', 'string', 'url:http,https', 'max:2000'],
            'kinds' => ['required', 'array', 'min:1'],
            'kinds.*' => [Rule::enum(NoticeKind::class)],
        ]);
        $gate->to($asked['url']);
        $secret = bin2hex(random_bytes(self::SECRET_BYTES));
        $person = $this->person($request);
        $webhook = $migration->getConnection()->transaction(static function () use ($migration, $asked, $secret, $person, $trail): Webhook {
            $trail->note(TrailAct::KeptConnection, $person, "{$asked['url']} is told of notices", $migration);

            return Webhook::query()->create([
                'migration_id' => $migration->id,
                'url' => $asked['url'],
                'kinds' => array_values(array_unique($asked['kinds'])),
                'secret' => $secret,
                'user_id' => $person->id,
            ]);
        });

        return response()->json(['id' => $webhook->id, 'secret' => $secret], Response::HTTP_CREATED);
    }

    public function destroy(Request $request, Migration $migration, Webhook $webhook, Trail $trail): Response
    {
        $webhook->getConnection()->transaction(function () use ($request, $migration, $webhook, $trail): void {
            $webhook->attempts()->delete();
            $webhook->delete();
            $about = "{$webhook->url} is not told of notices any more";
            $trail->note(TrailAct::RemovedConnection, $this->person($request), $about, $migration);
        });

        return response()->noContent();
    }

    /** @return array<string, mixed> never with the secret */
    private static function told(Webhook $webhook): array
    {
        return [
            'id' => $webhook->id,
            'migration' => $webhook->migration_id,
            'url' => $webhook->url,
            'kinds' => $webhook->kinds,
            'attempts' => $webhook->attempts()->limit(self::TOLD)->get()->map(static fn(WebhookAttempt $attempt): array => [
                'notice' => $attempt->notice_id,
                'said' => $attempt->said,
                'isTaken' => $attempt->is_taken,
                'at' => $attempt->created_at->toIso8601ZuluString(),
            ])->all(),
        ];
    }
}
