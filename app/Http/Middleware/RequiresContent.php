<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Models\CorrectionSet;
use App\Models\Delivery;
use App\Models\EyeCheck;
use App\Models\Ruling;
use App\Models\Tally;
use Closure;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/** For what is nothing without the findings of a tally or the bytes of a delivery: who asks for what was purged is told so. */
final readonly class RequiresContent
{
    /** @param Closure(Request): Response $next */
    public function handle(Request $request, Closure $next): Response
    {
        foreach ($request->route()?->parameters() ?? [] as $named) {
            match (true) {
                $named instanceof Tally, $named instanceof Delivery => $named->mustHaveContent(),
                $named instanceof CorrectionSet, $named instanceof EyeCheck, $named instanceof Ruling => $named->tally->mustHaveContent(),
                default => null,
            };
        }

        return $next($request);
    }
}
