<?php

declare(strict_types=1);

namespace App\Http\Controllers\Notices;

use App\Http\Controllers\Controller;
use App\Models\NoticeChoice;
use App\Models\NoticeKind;
use App\Queries\Notices\NoticesForPerson;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Validation\Rule;

/** What the person who asks is told of, and how they want to be. */
final class NoticeController extends Controller
{
    public function __construct(private readonly NoticesForPerson $notices) {}

    public function index(Request $request): JsonResponse
    {
        return response()->json(['items' => $this->notices->of($this->person($request))]);
    }

    public function choices(Request $request): JsonResponse
    {
        return response()->json(['items' => $this->notices->choices($this->person($request))]);
    }

    public function choose(Request $request): JsonResponse
    {
        /** @var array{kind: string, inApplication: bool, byMail: bool} $asked */
        $asked = $request->validate([
            'kind' => ['required', Rule::enum(NoticeKind::class)],
            'inApplication' => ['required', 'boolean'],
            'byMail' => ['required', 'boolean'],
        ]);
        NoticeChoice::query()->upsert(
            [[
                'user_id' => $this->person($request)->id,
                'kind' => $asked['kind'],
                'in_application' => $asked['inApplication'],
                'by_mail' => $asked['byMail'],
            ]],
            ['user_id', 'kind'],
        );

        return $this->choices($request);
    }
}
