<?php

declare(strict_types=1);

namespace App\Http\Controllers\Review;

use App\Http\Controllers\Controller;
use App\Http\Requests\Review\CommentRequest;
use App\Models\Comment;
use App\Models\Tally;
use App\Queries\Review\Comments;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\DB;

final class CommentController extends Controller
{
    public function index(CommentRequest $request, Tally $tally, Comments $comments): JsonResponse
    {

        return response()->json(['items' => $comments->about($tally, $comments->subject($tally, $request->kind(), $request->target()))]);
    }

    public function store(CommentRequest $request, Tally $tally, Comments $comments): JsonResponse
    {
        $person = $this->person($request);
        $comment = DB::transaction(static function () use ($request, $tally, $comments, $person): Comment {
            $comment = Comment::query()->create([
                'dataset_id' => $tally->dataset_id,
                'tally_id' => $tally->id,
                'subject' => $comments->subject($tally, $request->kind(), $request->target()),
                'place' => ['kind' => $request->kind(), 'target' => $request->target()],
                'text' => $request->text(),
                'user_id' => $person->id,
            ]);
            $comment->mentioned()->attach($request->mentions());

            return $comment;
        });

        return response()->json(Comments::view($comment), Response::HTTP_CREATED);
    }
}
